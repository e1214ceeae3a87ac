<script lang="ts">
	import { onMount } from 'svelte';
	import { cupboard } from '$lib/client/cupboard';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, whenText } from '$lib/ui/platform/words';

	/** Bookmarks of the reader, and what they opened last. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	type Kept = (typeof data.kept)[number];
	type Opened = (typeof data.lately)[number];
	const again = () => refresh('cupboard:at-hand');
	onMount(() => onTouched(['documents', 'places', 'access'], again));
	async function end(row: Kept) {
		const done = await attempt(() =>
			cupboard.endAtHand({ project: data.frame.project.id, place: row.place })
		);
		if (done) await again();
	}
</script>

<svelte:head><title>At hand · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-2 flex flex-wrap items-baseline gap-x-4">
		<h1 class="text-[21px]">At hand</h1>
		<p class="text-ink-2">bookmarks of your own; nobody else sees them</p>
	</div>
	<Table
		label="At hand"
		rows={data.kept}
		key={(row) => row.place}
		empty="Nothing is at hand. Press B on a document or in a folder, or choose Keep at hand from its actions, and it stands here."
		lines
		columns={[
			{ id: 'name', head: 'What', cell: name, by: (row) => row.name },
			{ id: 'kind', head: 'Kind', text: (row) => row.kind, by: (row) => row.kind, class: 'text-ink-2' },
			{ id: 'way', head: 'Where', text: (row) => row.way.join(' / '), class: 'text-ink-2' },
			{ id: 'state', head: 'Now', cell: state, quiet: true },
			{
				id: 'kept',
				head: 'Kept since',
				text: (row) => dayText(row.kept),
				by: (row) => new Date(row.kept).getTime(),
				class: 'text-ink-2'
			},
			{ id: 'do', head: 'Do', quiet: true, cell: acts, right: true }
		]}
	/>
	<h2 class="mt-6 mb-2 text-[18px]">Lately open</h2>
	<Table
		label="Lately open"
		rows={data.lately}
		key={(row) => row.id}
		empty="You have opened nothing here yet. The documents that you opened last will stand here."
		columns={[
			{ id: 'number', head: 'Number', cell: number, by: (row) => row.number },
			{
				id: 'title',
				head: 'Title',
				text: (row) => row.title,
				by: (row) => row.title,
				class: 'font-semibold',
				from: 'sm'
			},
			{ id: 'revision', head: 'Revision', cell: revision },
			{
				id: 'at',
				head: 'Opened',
				text: (row) => whenText(row.at),
				by: (row) => -new Date(row.at).getTime(),
				class: 'text-ink-2'
			}
		]}
	/>
</div>

{#snippet name(row: Kept)}{#if row.state === 'there'}<a
			class="link font-semibold"
			href={row.kind === 'document' ? `/${code}/document/${row.place}` : `/${code}/place/${row.place}`}
			>{row.name}</a
		>{:else}<span class="text-ink-2">{row.name}</span>{/if}{/snippet}
{#snippet state(row: Kept)}{#if row.state === 'removed'}<a class="link" href="/{code}/removed"
			>removed on {dayText(row.removedAt!)}</a
		>{:else if row.state === 'gone'}<span class="text-ink-2">not open to you any more</span>{/if}{/snippet}
{#snippet acts(row: Kept)}<button class="link" onclick={() => end(row)}>Keep no longer</button>{/snippet}
{#snippet number(row: Opened)}<a
		class="link font-mono text-[12px] whitespace-nowrap"
		href="/{code}/document/{row.id}">{row.number}</a
	>{/snippet}
{#snippet revision(row: Opened)}<Revision label={row.label} issued={row.issued} />{/snippet}
