<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { gatherChosen, type Batch } from './files';
	import { refresh } from '../platform/refresh';
	import SettleTable from './SettleTable.svelte';
	import { Settling, type SettlingProject } from './settling.svelte';
	import { plural, sizeText } from '../platform/words';

	/** Adds files to a folder: numbers and titles are proposed and settled before anything lands; each file goes its own way. */
	let {
		first,
		place,
		project,
		close
	}: {
		first: Batch;
		place: { id: string; name: string };
		project: SettlingProject;
		close: () => void;
	} = $props();

	const settling = untrack(() => new Settling(place.id, project));
	let open = $state(true);
	const lines = $derived(settling.lines);
	/** What the button would add; not counted again with every file that lands. */
	const waiting = $derived(settling.busy ? 0 : settling.waiting.length);
	const adds = $derived(
		waiting || !settling.empty.length
			? waiting
				? plural(waiting, 'document')
				: 'documents'
			: plural(settling.empty.length, 'folder')
	);
	const added = $derived(lines.filter((l) => l.state === 'done').length);
	const total = $derived(lines.reduce((n, l) => n + l.file.size, 0));
	const sent = $derived(
		lines.reduce((n, l) => n + (l.state === 'done' ? l.file.size : (l.sending?.sent ?? 0)), 0)
	);

	onMount(() => void settling.take(untrack(() => first)));
	$effect(() => {
		// What is on its way goes on; the page may be left meanwhile.
		if (!open) close();
	});

	async function addAll() {
		await settling.addAll();
		await refresh('cupboard:folder');
		if (lines.every((l) => l.state === 'done') && !settling.empty.length) open = false;
	}
	function choose(event: Event) {
		const field = event.currentTarget as HTMLInputElement;
		if (field.files) void settling.take(gatherChosen(field.files));
		field.value = '';
	}
</script>

<Dialog bind:open title="Add documents to {place.name}" wide>
	<Form
		act={addAll}
		button={settling.busy ? 'Adding…' : `Add ${adds}`}
		disabled={settling.busy || !(waiting || settling.empty.length)}
	>
		<div class="flex flex-wrap items-center gap-2">
			<label class="button cursor-pointer focus-within:outline-2"
				>Choose files<input type="file" multiple class="sr-only" onchange={choose} /></label
			>
			<label class="button cursor-pointer focus-within:outline-2"
				>Choose a folder<input type="file" webkitdirectory class="sr-only" onchange={choose} /></label
			>
			<p class="text-ink-2">
				{lines.length
					? `${plural(lines.length, 'file')}, ${sizeText(total)}. Numbers, titles and tags can be pasted from a sheet.`
					: 'or drop files and whole folders anywhere on the list. Up to ' +
						sizeText(project.maxFileBytes) +
						' each.'}
			</p>
		</div>
		{#if settling.empty.length}<p class="text-ink-2">
				{plural(settling.empty.length, 'empty folder')}, made as well: {settling.empty
					.slice(0, 5)
					.map((way) => way.join(' / '))
					.join(', ')}{settling.empty.length > 5 ? ' and more' : ''}.
			</p>{/if}
		{#if settling.fault}<p role="alert" class="text-fault">{settling.fault}</p>{/if}
		{#if lines.length}<SettleTable {settling} />{/if}
		{#if lines.some((l) => l.becomes === 'version' && l.open)}<Field
				label="What changed in the next versions"
				name="note"
				bind:value={settling.note}
			/>{/if}
		{#snippet more()}
			<p class="mr-auto self-center text-ink-2" role="status">
				{settling.busy
					? `${sizeText(sent)} of ${sizeText(total)}`
					: added
						? `${added} of ${lines.length} added`
						: ''}
			</p>
			<button type="button" class="button" onclick={() => (open = false)}
				>{settling.busy ? 'Go on in the background' : added ? 'Close' : 'Cancel'}</button
			>
		{/snippet}
	</Form>
</Dialog>
