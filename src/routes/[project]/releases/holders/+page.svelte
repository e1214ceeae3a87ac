<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { addressOf, cupboard, type AnswerOf } from '$lib/client/cupboard';
	import { HOLDING_LABEL } from '$lib/core/releases';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Menu from '$lib/ui/kit/Menu.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { NUMBER_COLUMN, type Column } from '$lib/ui/kit/table';
	import Table from '$lib/ui/kit/Table.svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { attempt } from '$lib/ui/platform/api';
	import { fetchFile } from '$lib/ui/platform/fetch-file';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { plural } from '$lib/ui/platform/words';
	import { Pages } from '$lib/ui/kit/pages.svelte';
	import { Narrowing } from '$lib/ui/platform/narrowing.svelte';
	import HolderPanel from '$lib/ui/releases/HolderPanel.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import ReleaseTabs from '$lib/ui/releases/ReleaseTabs.svelte';

	/** Documents against those outside who hold them: which revision, and whether it is the one that is current. */
	let { data } = $props();
	const address = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const project = $derived(data.frame.project.id);
	const { list, shown } = $derived(data);
	type Row = AnswerOf<'holders'>['rows'][number];
	type ListRow = Row & { id: string };
	const listed = (rows: readonly Row[]): ListRow[] => rows.map((row) => ({ ...row, id: row.document }));
	const narrowed = new Narrowing<typeof shown>(
		() => data.shown,
		(to) => {
			const query = new URLSearchParams(
				Object.entries(to).filter(([, value]) => value !== '' && value !== 'all')
			);
			return goto(`?${query}`, { keepFocus: true, noScroll: true });
		}
	);
	const asked = $derived({
		project,
		only: shown.only as 'all',
		...(shown.department ? { department: shown.department } : {})
	});
	const exported = (format: 'xlsx' | 'csv') => fetchFile(addressOf('holdersList', { ...asked, format }));
	const narrowing = $derived(JSON.stringify(asked));
	const pages = new Pages<ListRow>(
		async (skip, limit) => {
			const answer = await attempt(() => cupboard.holders({ ...asked, skip, limit }));
			return answer && listed(answer.rows);
		},
		untrack(() => ({ rows: listed(list.rows), total: list.total, list: narrowing }))
	);
	$effect(() => {
		const [rows, total, of] = [listed(list.rows), list.total, narrowing];
		untrack(() => void pages.take(rows, total, of));
	});
	onMount(() =>
		onTouched(['releases', 'passes', 'documents', 'openings'], async () => {
			await refresh('cupboard:holders');
			if (chosen) await choose(chosen.document, chosen.holder);
		})
	);

	/** The cell that is looked into. */
	let chosen = $state.raw<{ document: string; holder: string } | null>(null);
	let history = $state.raw<AnswerOf<'holding'>['rows']>([]);
	const row = $derived(pages.rows.find((one) => one.document === chosen?.document));
	const holder = $derived(list.holders.find((one) => one.key === chosen?.holder));
	async function choose(document: string, key: string) {
		const answer = await attempt(() => cupboard.holding({ project, document, holder: key }));
		if (!answer) return;
		history = answer.rows;
		chosen = { document, holder: key };
	}
	let sending = $state(false);
	let busy = $state(false);
	async function tell(whom: { holder?: string; document?: string }) {
		if (busy) return;
		busy = true;
		const answer = await attempt(() => cupboard.tellHolders({ project, ...whom }));
		busy = false;
		if (answer)
			toast.success(
				`${plural(answer.told, 'holder')} told by mail.${answer.unknown ? ` Of ${answer.unknown} no address is known.` : ''}`
			);
	}
	const LOOK = {
		current: 'border-ink bg-ink text-sheet',
		unconfirmed: 'border-ink text-ink',
		old: 'border-transparent bg-fault-soft text-fault line-through'
	} as const;
</script>

<svelte:head><title>Who holds what · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full min-h-0 flex-col">
	<ReleaseTabs base="{address}/releases" at="holders">
		<span class="ml-auto"
			><Menu
				label="Export"
				groups={[
					[
						{ word: 'XLSX', act: () => exported('xlsx') },
						{ word: 'CSV', act: () => exported('csv') }
					]
				]}
			/></span
		>
	</ReleaseTabs>
	<div class="flex flex-wrap items-center gap-2 px-5 pb-2">
		<Select
			label="Department"
			choices={[
				{ value: '', label: 'All departments' },
				...data.frame.departments.map((one) => ({ value: one.id, label: one.name }))
			]}
			value={narrowed.now.department}
			choose={(department) => narrowed.change({ department })}
			class="!w-[180px]"
		/>
		{#each [['old', 'Somebody holds an old revision', list.old], ['unconfirmed', 'Never confirmed', list.unconfirmed]] as const as [only, word, count] (only)}
			<button
				class="button {narrowed.now.only === only ? '!border-act bg-done-soft' : ''}"
				aria-pressed={narrowed.now.only === only}
				onclick={() => narrowed.change({ only: narrowed.now.only === only ? 'all' : only })}
				>{word} <span class="font-mono">{count}</span></button
			>
		{/each}
		{#if list.old}<button class="button" disabled={busy} onclick={() => tell({})}
				>Tell all who hold an old one</button
			>{/if}
		<p class="ml-auto flex flex-wrap items-center gap-x-3 text-[12px] text-ink-2 max-md:hidden">
			{#each ['current', 'unconfirmed', 'old'] as const as state (state)}<span
					><span class="rounded-sm border px-1 font-mono font-semibold {LOOK[state]}">P03</span>
					{HOLDING_LABEL[state]}</span
				>{/each}
		</p>
	</div>
	<div class="mx-5 min-h-0 flex-1">
		<Table
			label="Who holds what"
			rows={pages.rows}
			key={(one) => one.id}
			empty={shown.only === 'all' && !shown.department
				? 'Nobody outside holds anything yet. What is issued, or taken through a pass, stands here with who has it.'
				: 'No document is held like that.'}
			fills
			lines
			more={() => void pages.more()}
			rowClass={(one) => (one.document === chosen?.document ? 'bg-done-soft/50' : '')}
			columns={[
				NUMBER_COLUMN,
				{
					id: 'title',
					head: 'Title',
					text: (one) => one.title,
					by: (one) => one.title,
					class: 'font-semibold'
				},
				{ id: 'now', head: 'Now', cell: now },
				{ id: 'issued', head: 'Issued', cell: issued },
				...list.holders.map((one) => ({
					id: one.key,
					head: one.company ? `${one.name}, ${one.company}` : one.name,
					cell: held,
					class: 'sm:border-l border-rule sm:text-center'
				}))
			]}
		/>
	</div>
	{#if row && holder}<HolderPanel
			{row}
			{holder}
			{history}
			{address}
			tell={() => tell({ holder: holder.key, document: row.document })}
			send={() => (sending = true)}
			close={() => (chosen = null)}
		/>{/if}
</div>
{#if row && holder}{#if sending}<ReleaseDialog
			bind:open={sending}
			{project}
			code={data.frame.project.code.toLowerCase()}
			me={data.frame.me.id}
			documents={[row.document]}
			to={holder.email ?? undefined}
		/>{/if}{/if}

{#snippet now(one: ListRow)}<span class="max-sm:hidden"
		><Revision label={one.now.label} issued={one.now.issued} /></span
	>{/snippet}
{#snippet issued(one: ListRow)}{#if one.issued}<span class="mr-1 text-[12px] text-ink-2 sm:hidden"
			>issued</span
		><Revision label={one.issued} issued />{/if}{/snippet}
{#snippet held(one: ListRow, { id, head }: Column<ListRow>)}{@const of = one.held.find(
		(other) => other.holder === id
	)}<button
		class="min-h-6 min-w-12 px-1 {chosen?.document === one.document && chosen.holder === id
			? 'outline-2 outline-plank'
			: ''} {of ? '' : 'max-sm:hidden'}"
		aria-label="{head}: {of ? `${of.label}, ${HOLDING_LABEL[of.state]}` : 'never sent'}"
		onclick={() => choose(one.document, id)}
		>{#if of}<span class="mr-1 text-[12px] text-ink-2 sm:hidden">{head}</span><span
				class="rounded-sm border px-1.5 font-mono text-[12px] leading-[18px] font-semibold {LOOK[of.state]}"
				>{of.label}</span
			>{:else}<span class="text-ink-2">·</span>{/if}</button
	>{/snippet}
