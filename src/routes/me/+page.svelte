<script lang="ts">
	import Table from '$lib/ui/kit/Table.svelte';
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import { API } from '$lib/core/acts/api';
	import Select from '$lib/ui/kit/Select.svelte';
	import SignOut from '$lib/ui/shell/SignOut.svelte';
	import { refreshAll } from '$lib/ui/platform/refresh';
	import { toast } from '$lib/ui/kit/toast';
	import { cupboard, type InputOf } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { enhance } from '$app/forms';
	import { CHOICE_LABEL, NOTICE_CHOICES, NOTICE_LABEL } from '$lib/core/notices/notices';
	import Mark from '$lib/ui/shell/Mark.svelte';
	import { dayText, whenText } from '$lib/ui/platform/words';
	import { submitOnce } from '$lib/ui/platform/once';

	let { data, form } = $props();
	type Session = (typeof data.sessions)[number];
	type Choice = (typeof data.choices)[number];
	type Token = (typeof data.tokens)[number];
	// svelte-ignore state_referenced_locally
	let name = $state(data.name);
	let current = $state('');
	let next = $state('');
	let tokenName = $state('');
	let tokenDays = $state(365);
	let tokenReads = $state(false);
	let tokenEnds = $state(false);
	let secret = $state('');
	let theme = $state(globalThis.localStorage?.getItem('cupboard-theme') ?? 'system');

	async function changeName() {
		await cupboard.changeName({ name });
		toast('Your name is changed.');
		await refreshAll();
	}
	async function changePassword() {
		await cupboard.changePassword({ current, password: next });
		location.href = '/sign-in';
	}
	async function makeToken() {
		const made = await cupboard.makeToken({
			name: tokenName,
			scope: tokenReads ? 'read' : 'all',
			days: tokenDays,
			endsWithPassword: tokenEnds
		});
		secret = made.secret;
		tokenName = '';
		await refreshAll();
	}
	async function withdraw(id: string) {
		if (await attempt(() => cupboard.withdrawToken({ token: id }))) await refreshAll();
	}
	async function choose({ kind, choice }: InputOf<'chooseNotices'>) {
		if (await attempt(() => cupboard.chooseNotices({ kind, choice }))) await refreshAll();
	}
	async function endSession(id: string) {
		if (await attempt(() => cupboard.endSession({ session: id }))) await refreshAll();
	}
	/** What a browser calls itself, in a few words. */
	function browserText(agent: string): string {
		const browser = /(Firefox|Edg|OPR|Chrome|Safari)\/(\d+)/.exec(agent);
		const system = /(Windows|Mac OS X|Android|iPhone|iPad|Linux)/.exec(agent);
		return browser
			? `${browser[1]} ${browser[2]}${system ? ` on ${system[1]}` : ''}`
			: agent.slice(0, 60) || 'unknown browser';
	}
	function setTheme(chosen: string) {
		theme = chosen;
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
		<SignOut />
	</div>
	<section class="grid gap-4 border border-ink bg-sheet p-4 sm:grid-cols-2">
		<div>
			<Form act={changeName} button="Change name" quiet onPage>
				<h2 class="text-[15px]">Name</h2>
				<Field label="Your name, as others see it" name="name" bind:value={name} maxlength={180} required />
				<p class="text-[12px] text-ink-2">You sign in as {data.email}.</p>
			</Form>
			<label class="block pt-3"
				><span class="label">Light or dark</span>
				<Select
					choices={[
						{ value: 'system', label: 'As the system' },
						{ value: 'light', label: 'Light' },
						{ value: 'dark', label: 'Dark' }
					]}
					value={theme}
					choose={setTheme}
				/>
			</label>
		</div>
		<Form act={changePassword} button="Change password" quiet onPage>
			<h2 class="text-[15px]">Password</h2>
			<Field
				label="Current password"
				name="current"
				bind:value={current}
				autocomplete="current-password"
				type="password"
				required
			/>
			<Field
				label="New password, at least 10 characters"
				name="next"
				bind:value={next}
				autocomplete="new-password"
				type="password"
				minlength={10}
				required
			/>
			<p class="text-[12px] text-ink-2">All your sessions end; sign in again with the new password.</p>
		</Form>
	</section>
	<section class="border border-ink bg-sheet p-4">
		<h2 class="text-[15px]">Two-step sign-in</h2>
		{#if form && 'codes' in form && form.codes}
			<div class="mt-2 grid gap-4 sm:grid-cols-[180px_1fr]">
				<img class="h-[180px] w-[180px] bg-white" src={form.picture} alt="Code for your authenticator" />
				<div class="space-y-2">
					<p>
						Scan this with an authenticator, or type its key:
						<code class="font-mono break-all select-all">{form.key}</code>
					</p>
					<p>
						Keep these recovery codes where you find them; each is good for once. They are shown only now.
					</p>
					<ul class="columns-2 font-mono text-[12px]">
						{#each form.codes as code (code)}<li class="select-all">{code}</li>{/each}
					</ul>
					<form method="post" action="?/confirmTwoStep" class="flex gap-2" use:enhance={submitOnce}>
						<input
							class="field max-w-[150px] font-mono"
							name="code"
							inputmode="numeric"
							autocomplete="one-time-code"
							placeholder="6 digits"
							aria-label="Code that the authenticator shows"
							required
						/><button class="button button-act">Turn it on</button>
					</form>
				</div>
			</div>
		{:else}
			<p class="mb-2 text-ink-2">
				{data.twoStep
					? 'It is on: signing in asks for a code from your authenticator after the password.'
					: 'Signing in then asks for a code from an authenticator (RFC 6238) after the password. A project may ask for it where somebody Manages, and for a code of it where a release is issued.'}
			</p>
			<form
				method="post"
				action={data.twoStep ? '?/endTwoStep' : '?/beginTwoStep'}
				class="flex flex-wrap gap-2"
				use:enhance={submitOnce}
			>
				<input
					class="field max-w-[260px]"
					name="password"
					type="password"
					autocomplete="current-password"
					placeholder="Your password"
					aria-label="Your password"
					required
				/><button class="button">{data.twoStep ? 'Turn it off' : 'Set it up'}</button>
			</form>
		{/if}
		{#if form && 'fault' in form && form.fault}<p role="alert" class="mt-2 text-fault">{form.fault}</p>{/if}
	</section>
	<section class="border border-ink bg-sheet p-4">
		<h2 class="mb-2 text-[15px]">Where you are signed in</h2>
		<Table
			label="Where you are signed in"
			rows={data.sessions}
			key={(one) => one.id}
			empty="You are signed in nowhere else."
			columns={[
				{ id: 'browser', head: 'Browser', text: (one) => browserText(one.userAgent), class: 'font-semibold' },
				{
					id: 'since',
					head: 'Since',
					text: (one) => whenText(one.createdAt),
					by: (one) => String(one.createdAt),
					class: 'text-ink-2'
				},
				{ id: 'do', head: 'Do', quiet: true, cell: endIt, right: true }
			]}
		/>
	</section>
	<section class="border border-ink bg-sheet p-4">
		<h2 class="text-[15px]">Notices</h2>
		<p class="mb-2 text-ink-2">All of them show under the bell. By mail they come as you choose here.</p>
		<Table
			label="Notices"
			rows={data.choices}
			key={(one) => one.kind}
			empty="There are no notices."
			columns={[
				{ id: 'what', head: 'What of', text: (one) => NOTICE_LABEL[one.kind] },
				{ id: 'how', head: 'By mail', cell: byMail, class: 'w-[170px]' }
			]}
		/>
	</section>
	<section class="border border-ink bg-sheet p-4">
		<h2 class="text-[15px]">API tokens</h2>
		<p class="mb-3 text-ink-2">
			A token lets a program do what you may do, through the <a class="link" href="{API}/openapi.json"
				>public API</a
			>. Its secret is shown once.
		</p>
		{#if secret}<p class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
				The new secret, shown this once: <code class="font-mono break-all select-all">{secret}</code>
			</p>{/if}
		<div class="mb-3">
			<Table
				label="API tokens"
				rows={data.tokens}
				key={(token) => token.id}
				empty="You have no tokens."
				columns={[
					{
						id: 'for',
						head: 'For',
						text: (token) => token.name,
						by: (token) => token.name,
						class: 'font-semibold'
					},
					{
						id: 'may',
						head: 'May',
						text: (token) =>
							`${token.scope === 'read' ? 'reads only' : 'all you may'}, made ${whenText(token.createdAt)}${
								token.endsAt ? `, ends ${dayText(token.endsAt)}` : ''
							}${token.endsWithPassword ? ' or with your password' : ''}`,
						class: 'text-ink-2'
					},
					{
						id: 'used',
						head: 'Used',
						text: (token) => (token.lastUsedAt ? whenText(token.lastUsedAt) : 'not yet'),
						by: (token) => String(token.lastUsedAt ?? ''),
						class: 'text-ink-2'
					},
					{ id: 'do', head: 'Do', quiet: true, cell: withdrawIt, right: true }
				]}
			/>
		</div>
		<Form act={makeToken} button="Make a token" quiet onPage>
			<div class="grid max-w-[520px] grid-cols-[1fr_130px] gap-3">
				<Field label="What the token is for" name="name" bind:value={tokenName} required />
				<Field
					label="Days it works"
					name="days"
					bind:value={tokenDays}
					type="number"
					min={1}
					max={730}
					required
					mono
				/>
			</div>
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={tokenReads} />for reading only</label
			>
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={tokenEnds} />ends when the password changes</label
			>
		</Form>
	</section>
</main>

{#snippet endIt(one: Session)}<button class="link" onclick={() => endSession(one.id)}>End</button>{/snippet}
{#snippet byMail(one: Choice)}<Select
		label={NOTICE_LABEL[one.kind]}
		choices={NOTICE_CHOICES.map((choice) => ({ value: choice, label: CHOICE_LABEL[choice] }))}
		value={one.choice}
		choose={(choice) => choose({ kind: one.kind, choice: choice as Choice['choice'] })}
	/>{/snippet}
{#snippet withdrawIt(token: Token)}<button class="link" onclick={() => withdraw(token.id)}>Withdraw</button
	>{/snippet}
