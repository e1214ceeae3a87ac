<script lang="ts">
	import { enhance } from '$app/forms';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { submitOnce } from '$lib/ui/platform/once';

	let { form } = $props();
</script>

<Gate title="The first document controller">
	<p class="mb-3 text-ink-2">
		Nobody is here yet. The code stands on the console where Cupboard was started; it works once.
	</p>
	<form method="post" class="space-y-3" use:enhance={submitOnce}>
		<label class="block"
			><span class="label">Code</span><input
				class="field font-mono"
				name="code"
				autocomplete="off"
				required
			/></label
		>
		<label class="block"
			><span class="label">Your name</span><input
				class="field"
				name="name"
				autocomplete="name"
				required
				value={form?.name ?? ''}
			/></label
		>
		<label class="block"
			><span class="label">Mail address</span><input
				class="field"
				name="email"
				type="email"
				autocomplete="username"
				required
				value={form?.email ?? ''}
			/></label
		>
		<label class="block"
			><span class="label">Password, at least 10 characters</span><input
				class="field"
				name="password"
				type="password"
				autocomplete="new-password"
				minlength="10"
				required
			/></label
		>
		{#if form?.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
		<button class="button button-act">Begin</button>
	</form>
</Gate>
