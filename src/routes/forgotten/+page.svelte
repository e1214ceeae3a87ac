<script lang="ts">
	import { enhance } from '$app/forms';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { submitOnce } from '$lib/ui/platform/once';

	let { form } = $props();
</script>

<svelte:head><title>A new password · Cupboard</title></svelte:head>
<Gate title="A new password">
	{#if form?.sent}
		<p role="status">
			If somebody has an account with {form.sent}, a mail with a link is on its way there. The link works
			once, for an hour.
		</p>
		<p class="mt-4"><a class="button" href="/sign-in">Back to signing in</a></p>
	{:else}
		<form method="post" class="space-y-3" use:enhance={submitOnce}>
			<label class="block"
				><span class="label">Mail address that you sign in with</span><input
					class="field"
					name="email"
					type="email"
					autocomplete="username"
					defaultValue={form?.email ?? ''}
					required
				/></label
			>
			{#if form?.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
			<button class="button button-act">Send me a link</button>
			<a class="link ml-3" href="/sign-in">Back</a>
		</form>
	{/if}
</Gate>
