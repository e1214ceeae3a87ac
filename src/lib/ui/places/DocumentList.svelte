<script lang="ts">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { onDestroy, untrack } from 'svelte';
	import type { SvelteSet } from 'svelte/reactivity';
	import { releaseNumber } from '../../core/releases';
	import type { ReachSummary } from '../../core/access/rows';
	import type { DocumentRow } from '../../core/documents/rows';
	import { goto } from '$app/navigation';
	import ColumnChoice from './ColumnChoice.svelte';
	import { KeptColumns, OPTIONAL, type OptionalColumn } from './kept-columns.svelte';
	import { KeptSort } from './kept-sort.svelte';
	import { sortFolders, sortRows, type FolderRow, type SortKey } from './list';
	import FolderLine from './FolderLine.svelte';
	import EyeIcon from '@lucide/svelte/icons/eye';
	import SnowflakeIcon from '@lucide/svelte/icons/snowflake';
	import DocumentPictures from './DocumentPictures.svelte';
	import { ROWS_DRAGGED } from '../adding/files';
	import { between } from '../kit/table';
	import { rememberList } from './flip';
	import LockTag from '../locks/LockTag.svelte';
	import Revision from '../documents/Revision.svelte';
	import { kindWord } from '../../core/files/kinds';
	import { agoText, firstName, plural, sizeText } from '../platform/words';

	/**
	 * The list of a folder: the folders in it, then its documents; virtualised, sorted and filtered here, kept where it
	 * was when one comes back.
	 */
	let {
		rows,
		all,
		folders,
		total,
		chosen,
		selection,
		me,
		choose,
		open,
		place,
		code,
		reach,
		empty,
		pictures
	}: {
		rows: readonly DocumentRow[];
		/** Waits for the rows that are still to come; false when they cannot be had. */
		all: () => Promise<boolean>;
		folders: FolderRow[];
		total: number;
		chosen: string | null;
		/** Ids of the ticked documents and folders. */
		selection: SvelteSet<string>;
		/** Whose way of sorting is remembered. */
		me: string;
		choose: (id: string | null) => void;
		open: (id: string) => void;
		place: string;
		code: string;
		/** Who else reaches a scope, by its id. */
		reach: Map<string, ReachSummary>;
		empty: string;
		/** Shows pictures instead of lines. */
		pictures: boolean;
	} = $props();

	const ROW = 32;
	/** Columns beside number and title: what they are called, how wide they are, and from which width of the page on. */
	const WORDS: Record<OptionalColumn, string> = {
		label: 'Revision',
		now: 'Status',
		changed: 'Last change',
		reach: 'Shared with',
		kind: 'Kind',
		size: 'Size'
	};
	const WIDTHS: Record<OptionalColumn, string> = {
		label: '80px',
		now: '206px',
		changed: '118px',
		reach: '84px',
		kind: '58px',
		size: '66px'
	};
	const columns = untrack(() => new KeptColumns(me));
	/** From which width of the page on a column is seen; the revision stands on a phone too, whatever one chose. */
	const SEEN: Record<OptionalColumn, string> = {
		label: '',
		now: 'hidden sm:block',
		changed: 'hidden lg:block',
		reach: 'hidden lg:block',
		kind: 'hidden lg:block',
		size: 'hidden lg:block'
	};
	const seen = (column: OptionalColumn) =>
		columns.shows(column) ? SEEN[column] : column === 'label' ? 'sm:hidden' : 'hidden';
	const shownColumns = $derived(OPTIONAL.filter((column) => columns.shows(column)));
	const widths = $derived({
		narrow: `52px minmax(150px,200px) minmax(140px,1fr)${columns.shows('label') ? ' 76px' : ''}${columns.shows('now') ? ' minmax(90px,220px)' : ''}`,
		wide: `52px 200px minmax(150px,1fr) ${shownColumns.map((column) => WIDTHS[column]).join(' ')}`
	});
	const sorting = untrack(() => new KeptSort(me));
	const { key, down } = $derived(sorting);
	let filter = $state('');
	let scroller: HTMLDivElement | undefined = $state();

	const sortOf = (column: SortKey) => (key === column ? (down ? 'descending' : 'ascending') : 'none');
	const shown = $derived(sortRows(rows, filter, key, down));
	const inside = $derived(sortFolders(folders, filter, key === 'title' && down));
	/** Everything in the order of the list: folders, then documents. */
	const ids = $derived([...inside.map((f) => f.id), ...shown.map((r) => r.id)]);
	const isAllTicked = $derived(ids.length > 0 && ids.every((id) => selection.has(id)));
	// Whoever goes on to a document can flip through the others in this order.
	let listed = { place: '', ids: [] as string[] };
	$effect(() => void (listed = { place, ids: shown.map((r) => r.id) }));
	onDestroy(() => listed.place && rememberList(listed.place, listed.ids));
	const virtual = createVirtualizer<HTMLDivElement, HTMLDivElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => ROW,
		overscan: 12
	});
	$effect(() => {
		const count = ids.length;
		const element = scroller;
		untrack(() =>
			$virtual.setOptions({
				count,
				getScrollElement: () => element ?? null,
				getItemKey: (i) => ids[i] ?? i
			})
		);
	});
	// Back to where one was in this folder.
	$effect(() => {
		const element = scroller;
		const name = `cupboard-scroll-${place}`;
		if (!element) return;
		element.scrollTop = Number(sessionStorage.getItem(name) ?? 0);
		const keep = () => sessionStorage.setItem(name, String(element.scrollTop));
		element.addEventListener('scroll', keep, { passive: true });
		return () => element.removeEventListener('scroll', keep);
	});

	/** Who else reaches a row, in a word or two. */
	function reachText(summary: ReachSummary | undefined): string {
		if (!summary) return '';
		if (summary.passes) return summary.passes === 1 ? 'a pass' : `${summary.passes} passes`;
		if (summary.outside) return `${summary.outside} outside`;
		// Whoever reads this is one of them.
		if (summary.people === 1) return 'only you';
		if (summary.only) return `only ${summary.only}`;
		return plural(summary.people, 'person', 'people');
	}
	/** Where the last tick was set, from which a range goes. */
	let anchor: string | null = null;
	/** Gives whether it is ticked now. */
	function tick(id: string, range = false): boolean {
		if (range && anchor !== null) for (const one of between(ids, anchor, id)) selection.add(one);
		else if (!selection.delete(id)) selection.add(id);
		anchor = id;
		return selection.has(id);
	}
	/** Ticks every line of the list, those that are still to come too; or none, when all are ticked. */
	async function tickAll() {
		const here = new Set(ids);
		if (isAllTicked) return here.forEach((id) => selection.delete(id));
		here.forEach((id) => selection.add(id));
		// The folder may be another one by then, or what was ticked dealt with.
		const of = place;
		if ((await all()) && of === place && selection.size)
			ids.filter((id) => !here.has(id)).forEach((id) => selection.add(id));
	}
	/** With Shift a row is ticked from the last tick on, otherwise it is chosen. */
	function press(event: MouseEvent, id: string) {
		if (!event.shiftKey) return pick(id);
		event.preventDefault();
		anchor ??= at;
		tick(id, true);
	}
	/** The folder that the keys stand on; a document that they stand on is the chosen one. */
	let folderAt = $state<string | null>(null);
	const at = $derived(chosen ?? folderAt);
	function pick(id: string) {
		const isFolder = inside.some((f) => f.id === id);
		folderAt = isFolder ? id : null;
		if (!isFolder) choose(id);
		else if (chosen) choose(null);
	}
	const enter = (folder: string) => void goto(`/${code}/place/${folder}`);
	function keys(event: KeyboardEvent) {
		if ((event.target as HTMLElement).matches('input[type=text], input[type=search]')) return;
		const from = at ? ids.indexOf(at) : -1;
		const go = (to: number) => {
			const next = Math.max(0, Math.min(ids.length - 1, to));
			if (!ids[next]) return;
			pick(ids[next]);
			$virtual.scrollToIndex(next);
		};
		const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
		if (step) go(from < 0 ? 0 : from + step);
		else if (event.key === 'Home') go(0);
		else if (event.key === 'End') go(ids.length - 1);
		else if (event.key === 'Enter' && at && event.target === scroller) (chosen ? open : enter)(at);
		else if (event.key === ' ' && at) tick(at, event.shiftKey);
		else return;
		event.preventDefault();
	}
	const GRID =
		'grid grid-cols-[44px_1fr_76px] sm:grid-cols-[var(--narrow)] lg:grid-cols-[var(--wide)] items-center';
</script>

{#snippet heading(column: SortKey, word: string)}<button
		class="font-medium {key === column ? 'text-ink' : 'text-ink-2'}"
		onclick={() => sorting.by(column)}>{word}{key === column ? (down ? ' ▾' : ' ▴') : ''}</button
	>{/snippet}
<div
	class="flex min-w-0 flex-1 flex-col"
	style:--narrow={widths.narrow}
	style:--wide={widths.wide}
	role="grid"
	aria-label="Documents"
	aria-rowcount={total + folders.length}
>
	<div role="rowgroup" class="shrink-0">
		<div class="{GRID} h-8 shrink-0 border-b border-ink text-[12px]" role="row">
			<span class="pl-2" role="columnheader"
				><input
					type="checkbox"
					class="align-middle accent-act"
					aria-label="Tick all"
					checked={isAllTicked}
					onchange={() => void tickAll()}
				/></span
			>
			<span class="hidden truncate sm:block" role="columnheader" aria-sort={sortOf('number')}
				>{@render heading('number', 'Number')}</span
			>
			<span class="truncate" role="columnheader" aria-sort={sortOf('title')}
				>{@render heading('title', 'Title')}<input
					type="search"
					class="mx-2 w-[min(150px,45%)] border border-rule bg-sheet px-1.5 py-0.5"
					placeholder="Filter"
					aria-label="Filter this list"
					bind:value={filter}
				/><ColumnChoice {columns} words={WORDS} /></span
			>
			{#each OPTIONAL as column (column)}
				{#if column === 'reach'}<span class="{seen(column)} truncate text-ink-2" role="columnheader"
						>{WORDS[column]}</span
					>{:else}<span
						class="{seen(column)} truncate {column === 'size' ? 'pr-3 text-right' : ''}"
						role="columnheader"
						aria-sort={sortOf(column)}>{@render heading(column, WORDS[column])}</span
					>{/if}
			{/each}
		</div>
	</div>
	{#if pictures && shown.length}<DocumentPictures rows={shown} {chosen} {selection} {choose} {open} />{:else}
		<!-- The keys move through the whole list, so its scrolling part takes the focus. -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
		<div
			bind:this={scroller}
			class="min-h-0 flex-1 overflow-auto"
			tabindex="0"
			role="rowgroup"
			onkeydown={keys}
		>
			{#if ids.length}
				<div class="relative bg-sheet" role="presentation" style:height="{$virtual.getTotalSize()}px">
					{#each $virtual.getVirtualItems() as item (item.key)}
						{@const row = shown[item.index - inside.length]}
						{@const folder = inside[item.index]}
						{#if folder}<FolderLine
								{folder}
								grid={GRID}
								{code}
								index={item.index}
								start={item.start}
								height={ROW}
								current={folder.id === at}
								selected={selection.has(folder.id)}
								tick={(range) => tick(folder.id, range)}
								press={(event) => press(event, folder.id)}
								open={() => enter(folder.id)}
							/>
						{:else if row}
							<div
								role="row"
								tabindex="-1"
								aria-selected={row.id === chosen}
								aria-rowindex={item.index + 1}
								data-document={row.id}
								draggable="true"
								ondragstart={(e) => {
									const documents = selection.has(row.id)
										? shown.filter((r) => selection.has(r.id)).map((r) => r.id)
										: [row.id];
									e.dataTransfer?.setData(ROWS_DRAGGED, JSON.stringify(documents));
								}}
								class="{GRID} absolute inset-x-0 top-0 cursor-default border-b border-rule-2 {row.id ===
								chosen
									? 'bg-act-soft'
									: 'hover:bg-film'}"
								style:height="{ROW}px"
								style:transform="translateY({item.start}px)"
								onclick={(e) => press(e, row.id)}
								ondblclick={() => open(row.id)}
								onkeydown={(e) => e.key === 'Enter' && open(row.id)}
							>
								<span class="flex items-center gap-1.5 pl-2" role="gridcell"
									><input
										type="checkbox"
										class="accent-act"
										aria-label="Tick {row.number}"
										checked={selection.has(row.id)}
										onclick={(e) => {
											e.stopPropagation();
											e.currentTarget.checked = tick(row.id, e.shiftKey);
										}}
									/>{#if row.isNew}<span class="h-[7px] w-[7px] rounded-full bg-new" title="new to you"
											><span class="sr-only">new to you</span></span
										>{/if}</span
								>
								<span class="hidden truncate pr-2 font-mono text-[12.5px] sm:block" role="gridcell"
									>{row.number}</span
								>
								<span class="truncate pr-2" role="gridcell"
									><a
										class="font-semibold hover:text-act"
										href="?document={row.id}"
										onclick={(e) => e.preventDefault()}
										tabindex="-1">{row.title}</a
									>{#each row.tags.slice(0, 3) as tag (tag)}<span
											class="ml-1.5 border border-rule px-1 text-[11px] text-ink-2">{tag}</span
										>{/each}{#if row.held === 'view'}<span
											class="tag ml-1.5 bg-rule-2 text-[11px] font-normal"
											><EyeIcon size={11} aria-hidden="true" />view only</span
										>{/if}<span
										class="block truncate font-mono text-[10.5px] leading-none text-ink-2 sm:hidden"
										>{row.number}{row.lock ? `, in hand of ${row.lock.holder}` : ''}</span
									></span
								>
								<span class={seen('label')} role="gridcell"
									><Revision label={row.label} issued={row.issued} /></span
								>
								<span class="{seen('now')} truncate" role="gridcell">
									{#if row.frozen}<span class="tag bg-wait-soft text-wait" title={row.frozen.reason}
											><SnowflakeIcon size={11} aria-hidden="true" />frozen</span
										>{/if}
									{#if row.lock}<LockTag lock={row.lock} compact={row.frozen !== null} />
									{:else if row.inRelease}<span class="tag bg-wait-soft text-wait"
											>▸ in {releaseNumber(row.inRelease)}</span
										> <span class="text-[11.5px] text-ink-2">in review</span>
									{:else if row.withClient}<span class="tag bg-wait-soft text-wait"
											>▸ in {releaseNumber(row.withClient)}</span
										> <span class="text-[11.5px] text-ink-2">with client</span>{/if}
								</span>
								<span class="{seen('changed')} truncate text-ink-2" role="gridcell"
									>{firstName(row.changedBy)} · {agoText(row.changedAt)}</span
								>
								<span class="{seen('reach')} truncate pr-2" role="gridcell"
									><a
										class="text-ink-2 hover:text-ink hover:underline"
										href="/{code}/access/{row.id}"
										tabindex="-1"
										aria-label={reach.has(row.scope) ? undefined : `Access of ${row.number}`}
										onclick={(e) => e.stopPropagation()}>{reachText(reach.get(row.scope))}</a
									></span
								>
								<span class="{seen('kind')} truncate text-ink-2" role="gridcell"
									>{kindWord(row.mediaType, row.fileName)}</span
								>
								<span class="{seen('size')} pr-3 text-right text-ink-2" role="gridcell"
									>{sizeText(row.size)}</span
								>
							</div>
						{/if}
					{/each}
				</div>
				{#if rows.length < total}<p class="p-2 text-center text-[12px] text-ink-2">
						{rows.length.toLocaleString('en')} of {total.toLocaleString('en')} are here, more are coming
					</p>{/if}
			{:else}<p class="p-10 text-center text-ink-2">
					{filter ? `Nothing here fits “${filter}”.` : empty}
				</p>{/if}
		</div>
	{/if}
</div>
