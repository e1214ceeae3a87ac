<script lang="ts">
	import { enhance } from '$app/forms';
	import Gate from '$lib/ui/Gate.svelte';

	let { data, form } = $props();
	let busy = $state(false);
</script>

<Gate title="Sign in">
	<form
		method="post"
		class="space-y-3"
		use:enhance={() => {
			busy = true;
			return async ({ update }) => {
				await update();
				busy = false;
			};
		}}
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
			><span class="label">Password</span><input
				class="field"
				name="password"
				type="password"
				autocomplete="current-password"
				required
			/></label
		>
		{#if form?.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
		<button class="button button-act" disabled={busy}>Sign in</button>
	</form>
	{#if data.demo}<p class="mt-4 border-t border-rule pt-3 text-[12px] text-ink-2">
			Demo: ines@vennholm.example, halla@…, oke@… with the password cupboard-demo.
		</p>{/if}
</Gate>
