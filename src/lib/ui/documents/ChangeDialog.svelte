<script lang="ts">
	import { untrack } from 'svelte';
	import type { DocumentRow } from '../../core/documents/rows';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Changes number, title and tags of a document. */
	let {
		open = $bindable(false),
		row,
		done
	}: { open: boolean; row: DocumentRow; done: () => void } = $props();
	// What it was when the dialog opened; what others change meanwhile does not take away what is typed.
	const before = untrack(() => row);
	let number = $state(before.number);
	let title = $state(before.title);
	let tags = $state(before.tags.join(', '));
	let fault = $state('');

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			await cupboard.changeDocument({
				document: row.id,
				number,
				title,
				tags: tags
					.split(',')
					.map((t) => t.trim())
					.filter(Boolean)
			});
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog bind:open title="Properties of {row.number}">
	<form onsubmit={submit} class="space-y-3">
		<label class="block"
			><span class="label">Number</span><input class="field font-mono" bind:value={number} required /></label
		>
		<label class="block"
			><span class="label">Title</span><input
				class="field"
				bind:value={title}
				required
				maxlength="180"
			/></label
		>
		<label class="block"
			><span class="label">Tags, with commas between</span><input class="field" bind:value={tags} /></label
		>
		<p class="text-[12px] text-ink-2">What was issued keeps the number and title it was issued with.</p>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button><button
				class="button button-act">Change</button
			>
		</div>
	</form>
</Dialog>
