<script lang="ts">
	import { onMount } from 'svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural } from '$lib/ui/platform/words';

	/** What others shared with the reader, beyond what their departments have. */
	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	onMount(() => onTouched(['access', 'people', 'places'], () => refresh('cupboard:sharing')));

	type Row = (typeof data.toMe)[number];
	const wayTo = (row: Row) =>
		row.placeKind === 'document' ? `${base}/document/${row.place}` : `${base}/place/${row.place}`;
	const placeName = (row: Row) => `${row.number ? `${row.number} ` : ''}${row.placeName}`;
</script>

<svelte:head><title>Shared with me · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-2 flex flex-wrap items-baseline gap-x-4">
		<h1 class="text-[21px]">Shared with me</h1>
		<p class="text-ink-2">what others let you into, beside the shelves of your departments</p>
	</div>
	<Table
		label="Shared with me"
		rows={data.toMe}
		key={(row) => row.id}
		empty="Nothing beyond what your departments have on their own shelves. What somebody shares with you stands here, with who did it and until when."
		lines
		columns={[
			{ id: 'place', head: 'Place', cell: placeTo, by: placeName },
			{
				id: 'level',
				head: 'You may',
				text: (row) => row.level,
				by: (row) => row.level,
				class: 'font-semibold'
			},
			{
				id: 'through',
				head: 'Through',
				text: (row) => (row.kind === 'person' ? 'yourself' : row.who),
				class: 'text-ink-2'
			},
			{ id: 'by', head: 'By', text: (row) => row.by ?? 'the shelf' },
			{
				id: 'since',
				head: 'Since',
				text: (row) => dayText(row.at),
				by: (row) => new Date(row.at).getTime(),
				class: 'text-ink-2'
			},
			{
				id: 'until',
				head: 'Until',
				text: (row) => (row.endsAt ? dayText(row.endsAt) : ''),
				by: (row) => (row.endsAt ? new Date(row.endsAt).getTime() : Number.MAX_SAFE_INTEGER),
				class: 'text-ink-2'
			},
			{ id: 'changed', head: 'Changed since you looked', cell: changed, by: (row) => row.changed }
		]}
	/>
</div>

{#snippet placeTo(row: Row)}<a class="link font-semibold" href={wayTo(row)}>{placeName(row)}</a>{/snippet}
{#snippet changed(row: Row)}{#if row.changed}<span class="tag bg-new-soft text-new"
			>{plural(row.changed, 'document')}</span
		>{/if}{/snippet}
