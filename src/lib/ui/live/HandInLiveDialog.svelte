<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import type { Ending } from '../../core/files/media';
	import { toast } from '../kit/toast';
	import { HANDED_IN_AS, type LiveKind } from '../../core/live/live';
	import { cupboard } from '../../client/cupboard';
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

	async function submit() {
		const { label } = await cupboard.handInLive({ document, note, format });
		toast.success(`Handed in as ${label}. The ${kind} goes on.`);
		open = false;
		done();
	}
</script>

<Dialog bind:open title="Hand in {number}">
	<Form act={submit} button="Hand in" cancel={() => (open = false)} disabled={!note.trim()}>
		<p class="text-ink-2">
			What the {kind} holds now becomes a version that nobody changes any more. Everybody goes on; the next version
			holds what comes after.
		</p>
		<Field label="What changed" name="note" bind:value={note} maxlength={2000} required lines={3} />
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
	</Form>
</Dialog>
