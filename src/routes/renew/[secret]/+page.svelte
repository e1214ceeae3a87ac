<script lang="ts">
	import { enhance } from '$app/forms';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { submitOnce } from '$lib/ui/platform/once';

	let { data, form } = $props();
</script>

<svelte:head><title>A new password · Cupboard</title></svelte:head>
{#if data.whose}
	<Gate title="A new password">
		<p class="mb-3 text-ink-2">For {data.whose.email}. Wherever you are signed in, you will be signed out.</p>
		<form method="post" class="space-y-3" use:enhance={submitOnce}>
			<label class="block"
				><span class="label">New password, at least 10 characters; four words make a good one</span><input
					class="field"
					name="password"
					type="password"
					autocomplete="new-password"
					minlength="10"
					required
				/></label
			>
			{#if form?.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
			<button class="button button-act">Set password</button>
		</form>
	</Gate>
{:else}
	<Gate title="This link is over"
		><p>It was used already or has ended. <a class="link" href="/forgotten">Ask for a new one</a>.</p></Gate
	>
{/if}
