<script lang="ts">
	import { toast } from 'svelte-sonner';
	import { call, sentenceOf } from '../api';
	import Dialog from '../Dialog.svelte';

	/** Cuts a version of a live text, with a note of what changed. */
	let {
		open = $bindable(false),
		document,
		number,
		done
	}: { open: boolean; document: string; number: string; done: () => void } = $props();
	let note = $state('');
	let format = $state('docx');
	let fault = $state('');
	let busy = $state(false);

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		fault = '';
		try {
			const { label } = await call<{ label: string }>('POST', `/documents/${document}/live/versions`, {
				note,
				format
			});
			toast.success(`Handed in as ${label}. The text goes on.`);
			note = '';
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
			What the text says now becomes a version that nobody changes any more. Everybody goes on writing; the
			next version holds what comes after.
		</p>
		<label class="block"
			><span class="label">What changed</span><textarea
				class="field"
				bind:value={note}
				maxlength="2000"
				required></textarea></label
		>
		<fieldset class="flex gap-4">
			<legend class="label">Kept as</legend>
			{#each [['docx', 'DOCX'], ['odt', 'ODT']] as [value, word] (value)}<label
					class="flex items-center gap-1.5"><input type="radio" bind:group={format} {value} />{word}</label
				>{/each}
		</fieldset>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button>
			<button class="button button-act" disabled={busy || !note.trim()}>Hand in</button>
		</div>
	</form>
</Dialog>
