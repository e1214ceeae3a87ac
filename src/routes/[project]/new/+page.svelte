<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { cupboard } from '$lib/client/cupboard';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { plural, whenText } from '$lib/ui/platform/words';

	/** What others changed since the reader looked. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	type Row = (typeof data.rows)[number];
	const again = () => refresh('cupboard:new');
	onMount(() => onTouched(['documents', 'places', 'in-hand', 'access', 'openings'], again));
	async function seen() {
		if (await attempt(() => cupboard.markProjectSeen({ project: data.frame.project.id }))) await again();
	}
</script>

<svelte:head><title>New to you · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
		<h1 class="text-[21px]">New to you</h1>
		<p class="text-ink-2">
			{data.total > data.rows.length
				? `the newest ${data.rows.length} of ${plural(data.total, 'document')}`
				: plural(data.total, 'document')}, changed by others since you last looked
		</p>
		{#if data.total}<button class="button ml-auto" onclick={seen}>Mark all as seen</button>{/if}
	</div>
	<div class="min-h-0 flex-1">
		<Table
			label="New to you"
			rows={data.rows}
			key={(row) => row.id}
			empty="Nothing is new to you. What others change in places that you may look at stands here until you open it."
			open={(row) => void goto(`/${code}/document/${row.id}`)}
			group={(row) => row.place || 'Shared with you alone'}
			fills
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
					id: 'when',
					head: 'When',
					text: (row) => whenText(row.changedAt),
					by: (row) => -new Date(row.changedAt).getTime(),
					class: 'whitespace-nowrap text-ink-2'
				},
				{
					id: 'who',
					head: 'By',
					text: (row) => row.changedBy ?? '',
					by: (row) => row.changedBy ?? '',
					from: 'md'
				},
				{ id: 'note', head: 'What changed', text: (row) => row.note, class: 'text-ink-2', from: 'md' }
			]}
		/>
	</div>
</div>

{#snippet number(row: Row)}<a
		class="link font-mono text-[12px] whitespace-nowrap"
		href="/{code}/document/{row.id}">{row.number}</a
	>{/snippet}
{#snippet revision(row: Row)}<Revision label={row.label} issued={row.issued} />{/snippet}
