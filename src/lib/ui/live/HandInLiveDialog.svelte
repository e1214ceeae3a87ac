<script lang="ts">
	import type { Ending } from '../../core/files/media';
	import { toast } from '../kit/toast';
	import { HANDED_IN_AS, type LiveKind } from '../../core/live/live';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Cuts a version of a live document, with a note of what changed. */
	let {
		open = $bindable(false),
		document,
		number,
		kind,
		done
	}: { open: boolean; document: string; number: string; kind: LiveKind; done: () => void } = $props();
	let note = $state('');
	const formats: readonly Ending[] = $derived(HANDED_IN_AS[kind]);
	let chosen = $state<Ending | null>(null);
	const format = $derived(chosen ?? formats[0]);
	let fault = $state('');
	let busy = $state(false);

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		fault = '';
		try {
			const { label } = await cupboard.handInLive({ document, note, format });
			toast.success(`Handed in as ${label}. The ${kind} goes on.`);
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open title="Hand in {number}">
	<form class="space-y-3" onsubmit={submit}>
		<p class="text-ink-2">
			What the {kind} holds now becomes a version that nobody changes any more. Everybody goes on; the next version
			holds what comes after.
		</p>
		<label class="block"
			><span class="label">What changed</span><textarea
				class="field"
				bind:value={note}
				maxlength="2000"
				required></textarea></label
		>
		{#if formats.length > 1}<fieldset class="flex gap-4">
				<legend class="label">Kept as</legend>
				{#each formats as value (value)}<label class="flex items-center gap-1.5"
						><input
							type="radio"
							name="format"
							checked={format === value}
							onchange={() => (chosen = value)}
						/>{value.toUpperCase()}</label
					>{/each}
			</fieldset>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button>
			<button class="button button-act" disabled={busy || !note.trim()}>Hand in</button>
		</div>
	</form>
</Dialog>
