<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { goto } from '$app/navigation';
	import { cupboard } from '$lib/client/cupboard';
	import { isLate, lastPartOf } from '$lib/core/register';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Empty from '$lib/ui/kit/Empty.svelte';
	import { later } from '$lib/ui/kit/later';
	import type { Order } from '$lib/ui/kit/table';
	import Table from '$lib/ui/kit/Table.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { projectDay } from '$lib/ui/platform/project-day';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural } from '$lib/ui/platform/words';
	import {
		askedFor,
		type Asking,
		headOf,
		queryOf,
		type RegisterRow as Row,
		type Shown
	} from '$lib/ui/register/choices';
	import RegisterFilters from '$lib/ui/register/RegisterFilters.svelte';
	import RegisterHead from '$lib/ui/register/RegisterHead.svelte';
	import { Pages } from '$lib/ui/kit/pages.svelte';
	import { Narrowing } from '$lib/ui/platform/narrowing.svelte';
	import RegisterFigures from '$lib/ui/register/RegisterFigures.svelte';
	import Strip from '$lib/ui/register/Strip.svelte';
	import StripHead from '$lib/ui/register/StripHead.svelte';
	import { windowOf } from '$lib/ui/register/strip';

	/** The register: what the project must deliver, when it was planned, and when it comes. */
	let { data } = $props();
	const project = $derived(data.frame.project.id);
	const code = $derived(data.frame.project.code.toLowerCase());
	const controller = $derived(data.frame.me.controller);
	const today = projectDay();
	const shown = $derived(data.shown);
	const names = $derived(Object.fromEntries(data.list.stages.map((one) => [one.key, one.name])));

	const selection = new SvelteSet<string>();
	/** What tells one narrowing of the list from another; how much of time is shown does not. */
	const narrowing = $derived(queryOf({ ...shown, zoom: 'all' }));
	const pages = new Pages<Row>(
		async (skip, limit) => {
			const { order, down, group } = shown;
			const answer = await attempt(() =>
				cupboard.register({ project, ...askedFor(shown), order, down, group, skip, limit })
			);
			return answer && answer.rows;
		},
		untrack(() => ({ rows: data.list.rows, total: data.list.total, list: narrowing }))
	);
	$effect(() => {
		const [{ rows, total }, list] = [data.list, narrowing];
		untrack(() => void pages.take(rows, total, list));
	});
	const { rows } = $derived(pages);
	/** Ticks every line of the list, after those that are not here yet have come. */
	async function tickAll() {
		for (const row of (await pages.all()) ?? []) selection.add(row.id);
	}

	let moved = $state(0);
	const window = $derived(windowOf(data.list.span, shown.zoom, today, moved));
	/** Figures are asked for anew when the list is another. */
	let stirred = $state(0);
	onMount(() =>
		onTouched(['register', 'documents', 'releases', 'places', 'access', 'people', 'project'], () => {
			stirred++;
			void refresh('cupboard:register');
		})
	);

	const narrowed = new Narrowing<Shown>(
		() => data.shown,
		(to) => goto(`?${queryOf(to)}`, { keepFocus: true, noScroll: true })
	);
	function show(change: Partial<Shown>) {
		selection.clear();
		narrowed.change(change);
	}
	const order = $derived<Order | null>(
		shown.order === 'number' && !shown.down ? null : { column: shown.order, down: shown.down }
	);
	const reorder = (to: Order | null) =>
		show({ order: (to?.column ?? 'number') as Shown['order'], down: to?.down ?? false });

	let asking = $state<Asking | null>(null);
	const close = () => (asking = null);
	const chosen = $derived(rows.filter((row) => selection.has(row.id)));
	const ticked = $derived(chosen.map((row) => row.id));

	const stageName = $derived(shown.stage ? (names[shown.stage] ?? '').toLowerCase() : '');
	const summary = $derived.by(() => {
		const { counts } = data.list;
		return [
			plural(counts.deliverables, 'deliverable'),
			shown.stage
				? `${counts.met} issued ${stageName}${counts.wasLate ? `, ${counts.wasLate} of them late` : ''}`
				: `${counts.done} with every stage met`,
			`${counts.late} late or slipping`,
			`${counts.none} without a document`
		].join(' · ');
	});
	const nothing = $derived(data.list.counts.deliverables === 0 && queryOf(shown) === '');
	/** How a slip reads: later with a plus. */
	const slipText = (slip: number | null) =>
		slip === null ? '' : slip > 0 ? `+${slip}` : slip < 0 ? `−${-slip}` : '0';
	function next(row: Row) {
		const one = row.stages.find((stage) => stage.actual === null);
		if (!one) return row.stages.length ? 'every stage is met' : 'no stage is planned';
		const day = one.forecast ?? one.planned;
		return `${names[one.stage]}${day ? ` ${dayText(day)}` : ', no day yet'}`;
	}
</script>

<svelte:head><title>Register · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full min-h-0 flex-col">
	<div class="px-5 pt-3 pb-2">
		<RegisterHead
			frame={data.frame}
			{shown}
			{summary}
			{ticked}
			documents={chosen.flatMap((row) => row.document?.id ?? [])}
			total={data.list.total}
			{tickAll}
			ask={(what) => (asking = what)}
		/>
		<RegisterFilters
			frame={data.frame}
			list={data.list}
			choices={data.choices}
			shown={narrowed.now}
			{show}
			{moved}
			move={(to) => (moved = to)}
		/>
	</div>
	{#if nothing}
		<Empty
			>Nothing is planned yet. A deliverable is a number and title that the project must deliver, with the
			days on which each stage is planned; it stands here before its document does.{#snippet action()}{#if controller}<span
						class="inline-flex flex-wrap justify-center gap-2"
						><button class="button button-act" onclick={() => (asking = { what: 'add' })}
							>Add deliverables</button
						><button class="button" onclick={() => (asking = { what: 'import' })}>Import a list…</button
						><button class="button" onclick={() => (asking = { what: 'gaps' })}
							>Plan the documents that are there…</button
						></span
					>{/if}{/snippet}</Empty
		>
	{:else}
		<div class="flex min-h-0 flex-1">
			<div class="min-w-0 flex-1">
				<Table
					label="Deliverables"
					{rows}
					key={(row) => row.id}
					empty="No deliverable fits what the list is narrowed to."
					open={(row) => (asking = { what: 'line', id: row.id })}
					{...controller ? { selection, tickName: (row: Row) => `Tick ${row.number}` } : {}}
					fills
					lines
					served={{ order, change: reorder }}
					more={() => void pages.more()}
					{...shown.group === 'none'
						? {}
						: {
								group: (row: Row) =>
									headOf(
										shown.group,
										shown.group === 'responsible'
											? (row.responsible?.name ?? '')
											: String(row[shown.group as 'department' | 'zone' | 'type' | 'status'] ?? ''),
										data.frame.departments
									),
								groupCount: (head: string) =>
									data.list.groups.find(
										(one) => headOf(shown.group, one.head, data.frame.departments) === head
									)?.count ?? 0
							}}
					columns={[
						{
							id: 'number',
							head: 'Number',
							cell: number,
							by: (row) => row.number,
							class: 'whitespace-nowrap'
						},
						{ id: 'title', head: 'Title', cell: title, by: (row) => row.title },
						{ id: 'department', head: 'Dept', cell: department, from: 'md' },
						{ id: 'now', head: 'Status', cell: now, class: 'whitespace-nowrap' },
						{
							id: 'strip',
							head: 'Time',
							headCell: scale,
							cell: strip,
							class: 'w-[34%] min-w-[200px] !py-0 align-middle overflow-hidden',
							from: 'md'
						},
						{ id: 'due', head: 'Next', text: next, class: 'whitespace-nowrap text-ink-2', until: 'md' },
						{ id: 'slip', head: 'Days', cell: slip, by: (row) => row.slip ?? 0, right: true }
					]}
				/>
			</div>
			<RegisterFigures
				{project}
				{shown}
				asked={askedFor(shown)}
				again={`${stirred} ${data.list.total}`}
				stages={data.list.stages}
				departments={data.frame.departments}
				{show}
			/>
		</div>
	{/if}
</div>

{#snippet number(row: Row)}<button
		class="link font-mono text-[12px]"
		onclick={() => (asking = { what: 'line', id: row.id })}>{row.number}</button
	>{/snippet}
{#snippet title(row: Row)}{#if row.document}<a
			class="font-semibold hover:underline"
			href="/{code}/document/{row.document.id}">{row.title}</a
		>{:else}<span class="font-semibold">{row.title}</span>{/if}{#if shown.only === 'missing'}{@render missing(
			row.missingAfter
		)}{/if}{/snippet}
{#snippet missing(numbers: readonly string[])}<span class="block text-[12px] text-wait"
		>Missing after it:
		{#each numbers as one, i (one)}{i ? ', ' : ''}{#if controller}<button
					class="link font-mono"
					aria-label="Add {one}"
					onclick={() => (asking = { what: 'add', number: one })}
					>{lastPartOf(data.frame.project.numbering, one)}</button
				>{:else}<span class="font-mono">{lastPartOf(data.frame.project.numbering, one)}</span
				>{/if}{/each}</span
	>{/snippet}
{#snippet department(row: Row)}{#if row.department}<span
			class="rounded-sm bg-frame px-1 font-mono text-[11px] font-semibold text-on-frame"
			>{row.department}</span
		>{/if}{/snippet}
{#snippet now(row: Row)}{#if row.document}<Revision
			label={row.document.label}
			issued={row.document.issued}
		/>{#if row.status === 'returned'}<span class="ml-1.5 text-[12px] font-semibold text-fault"
				>returned {row.document.reply?.verdict}</span
			>{:else if row.document.inHand}<span class="ml-1.5 text-[12px] text-lock">in hand</span
			>{:else if row.status === 'with-client'}<span class="ml-1.5 text-[12px] text-wait">with the client</span
			>{/if}{:else}<span class="rounded-sm bg-wait-soft px-1.5 py-0.5 text-[12px] font-semibold text-wait"
			>no document yet</span
		>{/if}{/snippet}
{#snippet scale()}<StripHead {window} {today} />{/snippet}
{#snippet strip(row: Row)}<Strip
		stages={row.stages}
		{names}
		{window}
		{today}
		stage={shown.stage || null}
		drag={controller ? (stage, day) => (asking = { what: 'move', ids: [row.id], stage, day }) : undefined}
	/>{/snippet}
{#snippet slip(row: Row)}{@const late = row.stages.some((one) => isLate(one, today))}<span
		class="font-mono {row.slip !== null && row.slip > 0
			? 'text-fault'
			: row.slip !== null && row.slip < 0
				? 'text-done'
				: ''} {late ? 'font-semibold' : ''}">{slipText(row.slip)}</span
	>{/snippet}

{#if asking}{#await later(() => import('$lib/ui/register/RegisterDialogs.svelte'), close) then RegisterDialogs}<RegisterDialogs
			bind:open={() => asking !== null, (open) => (open ? null : close())}
			{asking}
			{project}
			{code}
			frame={data.frame}
			stages={data.list.stages}
			done={() => {
				selection.clear();
				return refresh('cupboard:register');
			}}
			ask={(what) => (asking = what)}
		/>{/await}{/if}
