<script lang="ts">
	import { enhance } from '$app/forms';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { submitOnce } from '$lib/ui/platform/once';

	let { data, form } = $props();
</script>

{#if data.invited}
	<Gate title="Welcome, {data.invited.name}">
		<p class="mb-3 text-ink-2">You will sign in as {data.invited.email}.</p>
		<form method="post" class="space-y-3" use:enhance={submitOnce}>
			<label class="block"
				><span class="label">Your name, as others see it</span><input
					class="field"
					name="name"
					autocomplete="name"
					maxlength="180"
					defaultValue={form?.name ?? data.invited.name}
					required
				/></label
			>
			<label class="block"
				><span class="label">Choose a password, at least 10 characters; four words make a good one</span
				><input
					class="field"
					name="password"
					type="password"
					autocomplete="new-password"
					minlength="10"
					required
				/></label
			>
			{#if form?.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
			<button class="button button-act">Set password and sign in</button>
		</form>
	</Gate>
{:else}
	<Gate title="This invitation is over"
		><p>
			It was used already or has ended. Ask the document controller to invite you again, or <a
				class="link"
				href="/sign-in">sign in</a
			>.
		</p></Gate
	>
{/if}
