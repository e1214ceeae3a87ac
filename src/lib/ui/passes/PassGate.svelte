<script lang="ts">
	import { refreshAll } from '../platform/refresh';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import { sentenceOf } from '../platform/api';
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
	let fault = $state('');
	let busy = $state(false);

	async function askCode(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			await cupboard.sendPassCode({ secret, email });
			sent = true;
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
	async function prove(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		busy = true;
		try {
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
		} catch (error) {
			fault = sentenceOf(error);
		}
		busy = false;
	}
</script>

<svelte:head><title>A pass to {gate.project}</title><meta name="robots" content="noindex" /></svelte:head>
<Gate title="A pass to {gate.project}">
	{#if gate.asks === 'account'}
		<p>This pass is for people with an account.</p>
		<a class="button button-act mt-3" href="/sign-in?to={encodeURIComponent(`/pass/${secret}`)}">Sign in</a>
	{:else if gate.asks === 'address' && !sent}
		<form onsubmit={askCode} class="space-y-3">
			<p>This pass is for people it names. Give the mail address it was sent to; a code comes there.</p>
			<label class="block"
				><span class="label">Mail address</span><input
					class="field"
					type="email"
					bind:value={email}
					required
				/></label
			>
			{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
			<button class="button button-act">Send me a code</button>
		</form>
	{:else}
		<form onsubmit={prove} class="space-y-3">
			{#if gate.asks === 'address'}
				<p>If the pass names {email}, a code is on its way there. It holds for a quarter of an hour.</p>
				<label class="block"
					><span class="label">Code</span><input
						class="field font-mono"
						inputmode="numeric"
						autocomplete="one-time-code"
						bind:value={code}
						required
					/></label
				>
			{/if}
			{#if gate.asks === 'password' || gate.alsoPassword}
				<label class="block"
					><span class="label">Password of this pass</span><input
						class="field"
						type="password"
						bind:value={password}
						required
					/></label
				>
			{/if}
			{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
			<button class="button button-act" disabled={busy}>Open</button>
		</form>
	{/if}
</Gate>
