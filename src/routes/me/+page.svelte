<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { toast } from 'svelte-sonner';
	import { attempt, call, sentenceOf } from '$lib/ui/api';
	import Mark from '$lib/ui/Mark.svelte';
	import { whenText } from '$lib/ui/words';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let name = $state(data.name);
	let current = $state('');
	let next = $state('');
	let passwordFault = $state('');
	let tokenName = $state('');
	let secret = $state('');
	let theme = $state(globalThis.localStorage?.getItem('cupboard-theme') ?? 'system');

	async function changeName(event: SubmitEvent) {
		event.preventDefault();
		if (await attempt(() => call('PATCH', '/me', { name }))) {
			toast('Your name is changed.');
			await invalidateAll();
		}
	}
	async function changePassword(event: SubmitEvent) {
		event.preventDefault();
		passwordFault = '';
		try {
			await call('PUT', '/me/password', { current, password: next });
			location.href = '/sign-in';
		} catch (error) {
			passwordFault = sentenceOf(error);
		}
	}
	async function makeToken(event: SubmitEvent) {
		event.preventDefault();
		const made = await attempt(() => call<{ secret: string }>('POST', '/me/tokens', { name: tokenName }));
		if (!made) return;
		secret = made.secret;
		tokenName = '';
		await invalidateAll();
	}
	async function withdraw(id: string) {
		if (await attempt(() => call('DELETE', `/me/tokens/${id}`))) await invalidateAll();
	}
	function setTheme() {
		if (theme === 'system') localStorage.removeItem('cupboard-theme');
		else localStorage.setItem('cupboard-theme', theme);
		document.documentElement.dataset.theme =
			theme === 'system' ? (matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light') : theme;
	}
</script>

<svelte:head><title>{data.name} · Cupboard</title></svelte:head>
<header class="flex h-12 items-center gap-2 bg-frame px-4 text-on-frame">
	<Mark /><a href="/" class="text-[16px] font-bold [font-stretch:110%]">Cupboard</a>
</header>
<main class="mx-auto my-6 w-[94vw] max-w-[720px] space-y-4">
	<div class="flex items-center justify-between">
		<h1 class="text-[20px]">Your own page</h1>
		<form method="post" action="/sign-out"><button class="button">Sign out</button></form>
	</div>
	<section class="grid gap-4 border border-ink bg-sheet p-4 sm:grid-cols-2">
		<form onsubmit={changeName} class="space-y-2">
			<h2 class="text-[15px]">Name</h2>
			<label class="block"
				><span class="label">Your name, as others see it</span><input
					class="field"
					bind:value={name}
					required
					maxlength="180"
				/></label
			>
			<p class="text-[12px] text-ink-2">You sign in as {data.email}.</p>
			<button class="button">Change name</button>
			<label class="block pt-3"
				><span class="label">Light or dark</span>
				<select class="field" bind:value={theme} onchange={setTheme}
					><option value="system">As the system</option><option value="light">Light</option><option
						value="dark">Dark</option
					></select
				>
			</label>
		</form>
		<form onsubmit={changePassword} class="space-y-2">
			<h2 class="text-[15px]">Password</h2>
			<label class="block"
				><span class="label">Current password</span><input
					class="field"
					type="password"
					autocomplete="current-password"
					bind:value={current}
					required
				/></label
			>
			<label class="block"
				><span class="label">New password, at least 10 characters</span><input
					class="field"
					type="password"
					autocomplete="new-password"
					minlength="10"
					bind:value={next}
					required
				/></label
			>
			{#if passwordFault}<p role="alert" class="text-fault">{passwordFault}</p>{/if}
			<p class="text-[12px] text-ink-2">All your sessions end; sign in again with the new password.</p>
			<button class="button">Change password</button>
		</form>
	</section>
	<section class="border border-ink bg-sheet p-4">
		<h2 class="text-[15px]">API tokens</h2>
		<p class="mb-3 text-ink-2">
			A token lets a program do what you may do, through the <a class="link" href="/api/v1/openapi.json"
				>public API</a
			>. Its secret is shown once.
		</p>
		{#if secret}<p class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
				The new secret, shown this once: <code class="font-mono break-all select-all">{secret}</code>
			</p>{/if}
		<table class="mb-3 w-full">
			<tbody>
				{#each data.tokens as token (token.id)}
					<tr class="h-8 border-b border-rule-2"
						><td class="font-semibold">{token.name}</td><td class="text-ink-2"
							>made {whenText(token.createdAt)}</td
						><td class="text-ink-2"
							>{token.lastUsedAt ? `used ${whenText(token.lastUsedAt)}` : 'not used yet'}</td
						><td class="text-right"
							><button class="link" onclick={() => withdraw(token.id)}>Withdraw</button></td
						></tr
					>
				{:else}<tr><td class="text-ink-2">You have no tokens.</td></tr>{/each}
			</tbody>
		</table>
		<form onsubmit={makeToken} class="flex gap-2">
			<input
				class="field max-w-[260px]"
				placeholder="What it is for"
				aria-label="What the token is for"
				bind:value={tokenName}
				required
			/><button class="button">Make a token</button>
		</form>
	</section>
</main>
