<script lang="ts">
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { submitOnce } from '$lib/ui/platform/once';

	let { data, form } = $props();
	const to = $derived(page.url.searchParams.get('to'));
	const way = $derived(to ? `&to=${encodeURIComponent(to)}` : '');
</script>

<Gate title="Sign in">
	{#if page.url.searchParams.has('renewed')}<p role="status" class="mb-3 bg-done-soft px-2 py-1 text-done">
			Your new password is set. Sign in with it.
		</p>{/if}
	{#if form && 'asksCode' in form && form.asksCode}
		<form method="post" action="?/code{way}" class="space-y-3" use:enhance={submitOnce}>
			<label class="block"
				><span class="label">Code from your authenticator, or a recovery code</span><input
					class="field font-mono"
					name="code"
					autocomplete="one-time-code"
					required
				/></label
			>
			{#if 'fault' in form && form.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
			<button class="button button-act">Go on</button>
		</form>
	{:else}
		<form method="post" action="?/password{way}" class="space-y-3" use:enhance={submitOnce}>
			<label class="block"
				><span class="label">Mail address</span><input
					class="field"
					name="email"
					type="email"
					autocomplete="username"
					required
					defaultValue={form && 'email' in form ? form.email : ''}
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
			{#if form && 'fault' in form && form.fault}<p role="alert" class="text-fault">{form.fault}</p>{/if}
			<button class="button button-act">Sign in</button>
			<a class="link ml-3" href="/forgotten">Forgotten your password?</a>
		</form>
	{/if}
	{#if data.demo}<p class="mt-4 border-t border-rule pt-3 text-[12px] text-ink-2">
			Demo: ines@vennholm.example, halla@…, oke@… with the password cupboard-demo.
		</p>{/if}
</Gate>
