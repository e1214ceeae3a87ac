<script lang="ts">
	import { addressOf } from '$lib/client/cupboard';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import Table from '$lib/ui/kit/Table.svelte';
	import { isOverdue, plainRemark, REMARK_FILTERS, type RemarkFilter } from '$lib/core/remarks/remarks';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';
	import { projectDay } from '$lib/ui/platform/project-day';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const today = projectDay();
	type Row = (typeof data.remarks)[number];
	const wayTo = (row: Row) => `/${code}/document/${row.document}?remark=${row.number}`;
	let words = $state('');
	const rows = $derived.by(() => {
		const wanted = words.trim().toLowerCase();
		return data.remarks.filter(
			(r) =>
				!wanted ||
				[r.documentNumber, r.documentTitle, r.by, r.from, r.text, r.quote, r.assigned?.name ?? ''].some((t) =>
					t.toLowerCase().includes(wanted)
				)
		);
	});
	const late = $derived(data.remarks.filter((r) => isOverdue(r, today)).length);
	const LABEL: Record<RemarkFilter, string> = {
		open: 'Open',
		mine: 'For me to settle',
		settled: 'Settled',
		all: 'All'
	};
	const asked = (filter: RemarkFilter) => ({ filter, ...(data.place ? { place: data.place } : {}) });
	const address = (filter: RemarkFilter) => `?${new URLSearchParams(asked(filter))}`;
	onMount(() => onTouched(['remarks', 'places'], () => refresh('cupboard:remarks')));
</script>

<svelte:head><title>Remarks · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1.5">
		<h1 class="text-[21px]">Remarks</h1>
		<p class="text-ink-2">{plural(data.remarks.length, 'remark')}{late ? `, ${late} overdue` : ''}</p>
		<nav class="flex" aria-label="Which remarks">
			{#each REMARK_FILTERS as one (one)}<a
					class="button rounded-none {data.filter === one ? '!border-act !bg-act-soft' : ''}"
					aria-current={data.filter === one}
					href={address(one)}>{LABEL[one]}</a
				>{/each}
		</nav>
		<input
			class="field !w-[220px]"
			type="search"
			aria-label="Narrow by words"
			placeholder="Number, person or words"
			bind:value={words}
		/>
		<a
			class="button ml-auto"
			download
			href={addressOf('remarkList', { project: data.frame.project.id, ...asked(data.filter) })}>Export CSV</a
		>
	</div>
	<div class="min-h-0 flex-1">
		<Table
			label="Remarks"
			{rows}
			key={(row) => row.id}
			empty={data.remarks.length
				? 'Nothing fits the words.'
				: data.filter === 'mine'
					? 'Nothing waits for you to settle.'
					: 'No remarks here.'}
			open={(row) => void goto(wayTo(row))}
			fills
			columns={[
				{ id: 'document', head: 'Document', cell: document, by: (row) => row.documentNumber },
				{
					id: 'number',
					head: 'No.',
					text: (row) => String(row.number),
					class: 'font-mono text-[12px]',
					from: 'md'
				},
				{ id: 'from', head: 'From', cell: from, by: (row) => row.from, from: 'md' },
				{ id: 'remark', head: 'Remark', cell: remark },
				{
					id: 'assigned',
					head: 'Who settles it',
					text: (row) => row.assigned?.name ?? '',
					by: (row) => row.assigned?.name ?? '',
					from: 'md'
				},
				{ id: 'due', head: 'Due', cell: due, by: (row) => row.due ?? '9', from: 'md' },
				{ id: 'state', head: 'State', cell: state, by: (row) => (row.settled ? 1 : 0), from: 'md' }
			]}
		/>
	</div>
</div>

{#snippet document(row: Row)}<a class="link font-mono text-[12px] whitespace-nowrap" href={wayTo(row)}
		>{row.documentNumber}</a
	><span class="block max-w-[220px] truncate text-[12px] text-ink-2">{row.documentTitle}</span>{/snippet}
{#snippet from(row: Row)}<span class="whitespace-nowrap"
		>{row.by}<span class="block text-[12px] text-ink-2">{row.from} · {whenText(row.at)}</span></span
	>{/snippet}
{#snippet remark(row: Row)}{#if row.quote}<span class="block text-[12px] text-ink-2"
			>“{row.quote.slice(0, 100)}”</span
		>{/if}{plainRemark(row.text)}{#if row.answers.length}<span class="block text-[12px] text-ink-2"
			>{row.answers.at(-1)!.by}: {plainRemark(row.answers.at(-1)!.text)}</span
		>{/if}<span class="block text-[12px] text-ink-2 md:hidden"
		>{row.number} · {row.by} · {@render due(row)}</span
	>{/snippet}
{#snippet due(row: Row)}<span
		class="whitespace-nowrap {isOverdue(row, today) ? 'font-semibold text-fault' : ''}"
		>{row.due ? `${dayText(row.due)}${isOverdue(row, today) ? ', overdue' : ''}` : ''}</span
	>{/snippet}
{#snippet state(row: Row)}<span class={row.settled ? 'text-done' : ''}
		>{row.settled
			? `settled by ${row.settled.by}${row.settled.note ? `: ${row.settled.note}` : ''}`
			: 'open'}</span
	>{/snippet}
