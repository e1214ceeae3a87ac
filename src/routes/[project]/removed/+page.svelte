<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { restorePlace } from '$lib/ui/places/restore';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	type Row = (typeof data.rows)[number];
	const again = () => refresh('cupboard:removed');
	const acts = $derived([...new Map(data.rows.map((row) => [row.removal, row])).values()].length);
	onMount(() => onTouched(['places', 'documents', 'access'], again));
</script>

<svelte:head><title>Removed · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex items-center gap-3 px-5 py-3">
		<h1 class="text-[21px]">Removed</h1>
		<p class="text-ink-2">
			{data.rows.length ? `${plural(data.rows.length, 'item')} in ${plural(acts, 'removal')} · ` : ''}kept for {data
				.frame.project.retentionDays} days, with versions, tags and access
		</p>
	</div>
	<div class="mx-5 mb-4 min-h-0 flex-1">
		<Table
			label="What is removed"
			rows={data.rows}
			key={(row) => row.id}
			empty="Nothing is removed. What is removed stays here for {data.frame.project.retentionDays} days."
			fills
			columns={[
				{ id: 'what', head: 'What', cell: what },
				{ id: 'by', head: 'Removed by', text: (row) => row.by, by: (row) => row.by, from: 'sm' },
				{
					id: 'at',
					head: 'When',
					text: (row) => whenText(row.at),
					by: (row) => String(row.at),
					class: 'whitespace-nowrap text-ink-2'
				},
				{ id: 'why', head: 'Why', cell: why, from: 'sm' },
				{
					id: 'until',
					head: 'Until',
					text: (row) => dayText(row.until),
					by: (row) => String(row.until),
					class: 'whitespace-nowrap text-ink-2'
				},
				{ id: 'do', head: 'Do', quiet: true, cell: restore, class: 'whitespace-nowrap', right: true }
			]}
		/>
	</div>
</div>

{#snippet what(row: Row)}<span class={row.root ? 'font-semibold' : 'pl-5'}
		>{#if row.number}<span class="mr-2 font-mono font-normal">{row.number}</span
			>{/if}{row.name}{#if row.kind !== 'document'}<span class="ml-2 font-normal text-ink-2"
				>{row.kind}{row.root ? ` with ${plural(row.documents, 'document')}` : ''}</span
			>{/if}</span
	>{/snippet}
{#snippet why(row: Row)}<span class="block max-w-[320px] truncate" title={row.reason}>{row.reason}</span
	>{/snippet}
{#snippet restore(row: Row)}{#if row.mayRestore}<button
			class="link"
			onclick={() => restorePlace(row.id, again)}>{row.root ? 'Restore' : 'Restore only this'}</button
		>{:else}<span class="text-[12px] text-ink-2">needs Organise</span>{/if}{/snippet}
