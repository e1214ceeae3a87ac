<script lang="ts">
	import Dialog from './Dialog.svelte';
	import { sentenceOf } from '../platform/api';

	/** Asks for a reason (or a note) before an act, says the consequence, and shows what went wrong in place. */
	let {
		open = $bindable(false),
		title,
		consequence,
		label = 'Reason',
		button,
		dangerous = false,
		required = true,
		act
	}: {
		open: boolean;
		title: string;
		consequence: string;
		label?: string;
		button: string;
		dangerous?: boolean;
		required?: boolean;
		act: (reason: string) => Promise<unknown>;
	} = $props();

	let reason = $state('');
	let fault = $state('');
	let busy = $state(false);

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		fault = '';
		try {
			await act(reason);
			open = false;
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open {title}>
	<form onsubmit={submit} class="space-y-3">
		<p>{consequence}</p>
		<label class="block"
			><span class="label">{label}</span><textarea
				class="field"
				bind:value={reason}
				{required}
				maxlength="2000"></textarea></label
		>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button>
			<button class="button {dangerous ? 'button-fault' : 'button-act'}" disabled={busy}>{button}</button>
		</div>
	</form>
</Dialog>
