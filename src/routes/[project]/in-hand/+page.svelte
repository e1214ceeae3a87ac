<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { DAY } from '$lib/core/time/spans';
	import Table from '$lib/ui/kit/Table.svelte';
	import LockTag from '$lib/ui/locks/LockTag.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { agoText, dayText, plural, timeText } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	type Row = (typeof data.rows)[number];
	let mine = $state(false);
	let stale = $state(false);
	const rows = $derived(data.rows.filter((r) => (!mine || r.lock?.mine) && (!stale || r.lock?.stale)));
	const people = $derived(new Set(data.rows.map((r) => r.lock?.holder)).size);
	const late = $derived(data.rows.filter((r) => r.lock?.stale).length);
	onMount(() => onTouched(['in-hand', 'documents', 'places', 'access'], () => refresh('cupboard:in-hand')));

	/** How long it has been in hand, in days once it is more than one. */
	function age(since: string): string {
		const days = Math.floor((Date.now() - new Date(since).getTime()) / DAY);
		return days >= 1 ? plural(days, 'day') : agoText(since);
	}
</script>

<svelte:head><title>In hand · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
		<h1 class="text-[21px]">In hand</h1>
		<p class="text-ink-2">
			{plural(data.rows.length, 'document')}, {plural(people, 'person', 'people')}{late
				? `, ${late} past the end`
				: ''}
		</p>
		<span class="ml-auto flex gap-4">
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={mine} />only mine</label
			>
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={stale} />only stale</label
			>
		</span>
	</div>
	<div class="min-h-0 flex-1">
		<Table
			label="Documents in hand"
			{rows}
			key={(row) => row.id}
			empty={data.rows.length ? 'Nothing fits the filter.' : 'Nobody has anything in hand.'}
			open={(row) => void goto(`/${code}/document/${row.id}`)}
			fills
			lines
			columns={[
				{ id: 'who', head: 'Who', cell: who, by: (row) => row.lock!.holder },
				{
					id: 'age',
					head: 'For how long',
					text: (row) => age(row.lock!.since),
					by: (row) => -new Date(row.lock!.since).getTime(),
					class: 'font-mono text-[12px]'
				},
				{ id: 'number', head: 'Number', cell: number, by: (row) => row.number },
				{
					id: 'title',
					head: 'Title',
					text: (row) => row.title,
					by: (row) => row.title,
					class: 'font-semibold'
				},
				{ id: 'revision', head: 'Revision', cell: revision },
				{
					id: 'purpose',
					head: 'What for',
					text: (row) => row.lock!.purpose,
					class: 'text-ink-2',
					from: 'md'
				},
				{ id: 'end', head: 'Back by', cell: end, by: (row) => row.lock!.expectedEnd ?? '9' },
				{
					id: 'wanted',
					head: 'Asked for',
					text: (row) => (row.wanted ? plural(row.wanted, 'person', 'people') : ''),
					by: (row) => row.wanted,
					from: 'md'
				}
			]}
		/>
	</div>
</div>

{#snippet who(row: Row)}<LockTag lock={row.lock!} compact />{/snippet}
{#snippet number(row: Row)}<a
		class="link font-mono text-[12px] whitespace-nowrap"
		href="/{code}/document/{row.id}">{row.number}</a
	>{/snippet}
{#snippet revision(row: Row)}<Revision label={row.label} issued={row.issued} />{/snippet}
{#snippet end(row: Row)}<span class="whitespace-nowrap {row.lock!.stale ? 'font-semibold text-fault' : ''}"
		>{row.lock!.expectedEnd
			? `${dayText(row.lock!.expectedEnd)} ${timeText(row.lock!.expectedEnd)}`
			: 'not said'}{row.lock!.stale ? ', stale' : ''}</span
	>{/snippet}
