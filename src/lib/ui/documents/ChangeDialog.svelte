<script lang="ts">
	import { untrack } from 'svelte';
	import type { DocumentRow } from '../../core/documents/rows';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';

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

	async function change() {
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
	}
</script>

<Dialog bind:open title="Properties of {row.number}">
	<Form act={change} button="Change" cancel={() => (open = false)}>
		<Field label="Number" name="number" bind:value={number} required mono />
		<Field label="Title" name="title" bind:value={title} required maxlength={180} />
		<Field label="Tags, with commas between" name="tags" bind:value={tags} />
		<p class="text-[12px] text-ink-2">What was issued keeps the number and title it was issued with.</p>
	</Form>
</Dialog>
