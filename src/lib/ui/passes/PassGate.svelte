<script lang="ts">
	import { refreshAll } from '../platform/refresh';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Gate from '../shell/Gate.svelte';

	/** What stands before a pass that asks for something: an account, a mail address proven by a code, a password. */
	let {
		gate,
		secret
	}: {
		gate: {
			asks: 'account' | 'address' | 'password' | 'nothing';
			alsoPassword: boolean;
			project: string;
			demo: boolean;
		};
		secret: string;
	} = $props();

	let email = $state('');
	let code = $state('');
	let password = $state('');
	let sent = $state(false);

	async function askCode() {
		await cupboard.sendPassCode({ secret, email });
		sent = true;
	}
	async function prove() {
		const response = await fetch(`/pass/${secret}/proof`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({
				...(gate.asks === 'address' ? { email, code } : {}),
				...(gate.asks === 'password' || gate.alsoPassword ? { password } : {})
			})
		});
		if (!response.ok) {
			const answer = (await response.json()) as { code: string; detail: string };
			throw new CallError(answer.code, answer.detail, {});
		}
		await refreshAll();
	}
</script>

<svelte:head><title>A pass to {gate.project}</title><meta name="robots" content="noindex" /></svelte:head>
<Gate title="A pass to {gate.project}">
	{#if gate.asks === 'account'}
		<p>This pass is for people with an account.</p>
		<a class="button button-act mt-3" href="/sign-in?to={encodeURIComponent(`/pass/${secret}`)}">Sign in</a>
	{:else if gate.asks === 'address' && !sent}
		<Form act={askCode} button="Send me a code" onPage>
			<p>This pass is for people it names. Give the mail address it was sent to; a code comes there.</p>
			<Field label="Mail address" name="email" type="email" bind:value={email} required />
		</Form>
	{:else}
		<Form act={prove} button="Open" onPage>
			{#if gate.asks === 'address'}
				<p>If the pass names {email}, a code is on its way there. It holds for a quarter of an hour.</p>
				<Field label="Code" name="code" autocomplete="one-time-code" bind:value={code} required mono />
			{/if}
			{#if gate.asks === 'password' || gate.alsoPassword}
				<Field label="Password of this pass" name="password" type="password" bind:value={password} required />
			{/if}
		</Form>
	{/if}
</Gate>
