<script lang="ts">
	import { isHeld } from '../platform/held';
	import { inField } from '../platform/in-field';
	import Select from '../kit/Select.svelte';
	import SuggestedInput from '../kit/SuggestedInput.svelte';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import Menu from '../kit/Menu.svelte';
	import { goto } from '$app/navigation';
	import { tick, untrack } from 'svelte';
	import { toast } from '../kit/toast';
	import { cellInColumn, cellKey, cellShown, cellText, decimalsOf } from '../../core/schedule/cell';
	import { valueIn } from '../../core/schedule/arrange';
	import type { Column, Row } from '../../core/schedule/column';
	import { rowsPasted, rowsToCopy } from '../../formats/tables/clipboard';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';
	import type { CellAt, Grid } from './grid.svelte';
	import { colourOf } from './people-look';

	/** The cells of a live schedule: only those in sight are drawn, headings and the first columns stay. */
	let {
		grid,
		code,
		writes,
		filtering,
		label,
		remarked,
		settle
	}: {
		grid: Grid;
		code: string;
		writes: boolean;
		filtering: boolean;
		label: string;
		/** Cells with an open remark. */
		remarked: CellAt[];
		/** Changes a column, or puts a new one in at a place. */
		settle: (column: Column | null, at: number) => void;
	} = $props();

	const ROW = 28;
	const NUMBERS = 48;
	let scroller = $state<HTMLDivElement>();
	let field = $state<HTMLInputElement>();
	/** How the field over the cell looks that is being edited. */
	const EDITED =
		'absolute inset-0 w-full bg-paper px-1.5 text-paper-ink outline-2 -outline-offset-2 outline-act';
	const widths = $derived(grid.columns.map((c) => c.width));
	const template = $derived(`${NUMBERS}px ${widths.map((w) => `${w}px`).join(' ')}`);
	const total = $derived(NUMBERS + widths.reduce((a, b) => a + b, 0));
	/** Where each column begins, for those that stay in sight. */
	const lefts = $derived.by(() => {
		let at = NUMBERS;
		return widths.map((w) => (at += w) - w);
	});
	const stays = (i: number) => (i < grid.frozen ? `position:sticky;left:${lefts[i]}px;z-index:2` : '');
	const places = $derived(new Map(grid.schedule.rows.map((r, i) => [r.id, i + 1])));
	const elsewhere = $derived(
		new Map(
			grid.others.flatMap((o) => (o.cell ? [[cellKey(o.cell.row, o.cell.column), o.user] as const] : []))
		)
	);
	const marked = $derived(new Set(remarked.map((r) => cellKey(r.row, r.column))));
	/** Decimals of the columns of numbers; of formulas as far as they are seen. */
	const decimals = $derived(
		new Map(
			grid.columns
				.filter((c) => c.kind === 'number' || c.kind === 'formula')
				.map((c) => [c.id, decimalsOf(grid.rows.slice(0, 500).map((row) => valueIn(row, c, grid.formulas)))])
		)
	);
	const summed = $derived(grid.columns.some((c) => c.total !== 'none'));

	const virtual = createVirtualizer<HTMLDivElement, HTMLDivElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => ROW,
		overscan: 12
	});
	$effect(() => {
		const count = grid.rows.length;
		const element = scroller;
		untrack(() =>
			$virtual.setOptions({
				count,
				getScrollElement: () => element ?? null,
				getItemKey: (i) => grid.rows[i]?.id ?? i
			})
		);
	});

	/** Has the keys go to the cells again, with the cursor in sight. */
	export function take() {
		scroller?.focus({ preventScroll: true });
		void tick().then(reveal);
	}
	/** Brings the cursor into sight. */
	export function reveal() {
		const at = grid.chosen;
		if (!at || !scroller) return;
		const corner = grid.corner ?? grid.cursor!;
		const row = grid.rows.findIndex((r) => r.id === corner.row);
		const column = grid.columns.findIndex((c) => c.id === corner.column);
		const head = filtering ? 2 * ROW + 4 : ROW + 2;
		const foot = summed ? ROW : 0;
		const top = row * ROW;
		if (top < scroller.scrollTop) scroller.scrollTop = top;
		else if (top + ROW + head + foot > scroller.scrollTop + scroller.clientHeight)
			scroller.scrollTop = top + ROW + head + foot - scroller.clientHeight;
		const kept = grid.frozen ? (lefts[grid.frozen - 1] ?? 0) + (widths[grid.frozen - 1] ?? 0) : NUMBERS;
		if (column >= grid.frozen) {
			const left = lefts[column]!;
			if (left - kept < scroller.scrollLeft) scroller.scrollLeft = left - kept;
			else if (left + widths[column]! > scroller.scrollLeft + scroller.clientWidth)
				scroller.scrollLeft = left + widths[column]! - scroller.clientWidth;
		}
	}
	$effect(() => {
		if (grid.editing !== null) void tick().then(() => field?.focus());
	});
	function endEditing(keep: boolean) {
		if (keep) grid.commit();
		else grid.editing = null;
		scroller?.focus({ preventScroll: true });
	}

	function keys(event: KeyboardEvent) {
		if (inField(event)) return;
		const held = isHeld(event);
		const ctrl = held && !event.altKey;
		const moves: Record<string, [number, number]> = {
			ArrowDown: [1, 0],
			ArrowUp: [-1, 0],
			ArrowRight: [0, 1],
			ArrowLeft: [0, -1],
			PageDown: [20, 0],
			PageUp: [-20, 0],
			Home: ctrl ? [-1e6, -1e6] : [0, -1e6],
			End: ctrl ? [1e6, 1e6] : [0, 1e6]
		};
		const move = moves[event.key];
		const withCtrl: Record<string, () => void> = {
			a: () => grid.chooseAll(),
			d: () => grid.fillDown(false),
			z: () => (event.shiftKey ? grid.redo() : grid.undo()),
			y: () => grid.redo()
		};
		if (move) grid.step(...move, event.shiftKey);
		else if (event.key === 'Tab') {
			// From the last cell of a row the key leaves the grid, so that nobody is caught in it.
			const at = grid.chosen;
			if (!at || (event.shiftKey ? at.column === 0 : at.column === grid.columns.length - 1)) return;
			grid.step(0, event.shiftKey ? -1 : 1);
		} else if (ctrl && withCtrl[event.key.toLowerCase()]) withCtrl[event.key.toLowerCase()]!();
		else if (held) return;
		else if (event.key === 'Enter' || event.key === 'F2') {
			const { row, column } = grid;
			if (!writes && column?.kind === 'document' && row)
				return void followNumber(cellText(row.cells[column.id]));
			grid.edit();
		} else if (event.key === 'Delete' || event.key === 'Backspace') grid.clear();
		else if (event.key === 'Escape') grid.choose(grid.cursor);
		else if (event.key.length === 1 && grid.cursor && writes) grid.edit(event.key);
		else return;
		event.preventDefault();
		event.stopPropagation();
		reveal();
	}
	function editKeys(event: KeyboardEvent) {
		const step: Record<string, [number, number]> = {
			Enter: [event.shiftKey ? -1 : 1, 0],
			Tab: [0, event.shiftKey ? -1 : 1]
		};
		event.stopPropagation();
		if (event.key === 'Escape') endEditing(false);
		else if (step[event.key]) {
			endEditing(true);
			grid.step(...step[event.key]!);
			reveal();
		} else return;
		event.preventDefault();
	}
	function copy(event: ClipboardEvent) {
		if (grid.editing !== null || !grid.chosen) return;
		event.preventDefault();
		event.clipboardData?.setData('text/plain', rowsToCopy(grid.copied()));
		if (event.type === 'cut') grid.clear();
	}
	function remove(column: Column) {
		grid.removeColumn(column);
		toast(`The column ${column.name} is taken out.`, { takeBack: () => grid.undo() });
	}
	function paste(event: ClipboardEvent) {
		if (grid.editing !== null || !writes) return;
		event.preventDefault();
		const text = event.clipboardData?.getData('text/plain') ?? '';
		const rows = rowsPasted(text);
		if (!grid.cursor) grid.step(0, 0);
		const added = grid.paste(rows);
		if (rows.length > 1)
			toast.success(`${plural(rows.length, 'row')} pasted${added ? `, ${added} of them new` : ''}.`, {
				takeBack: () => grid.undo()
			});
	}

	let dragging = false;
	function press(event: PointerEvent, cell: CellAt) {
		if (event.button !== 0) return;
		if (grid.editing !== null) {
			if (grid.cursor?.row === cell.row && grid.cursor.column === cell.column) return;
			grid.commit();
		}
		dragging = true;
		grid.choose(cell, event.shiftKey);
		scroller?.focus({ preventScroll: true });
	}
	function over(cell: CellAt) {
		if (dragging && (cell.row !== grid.cursor?.row || cell.column !== grid.cursor.column))
			grid.choose(cell, true);
	}
	async function followNumber(number: string) {
		const found = await attempt(() => cupboard.find({ project: code.toUpperCase(), q: number }));
		const row = found?.rows.find((r) => r.number.toLowerCase() === number.toLowerCase());
		if (row) await goto(`/${code}/document/${row.id}`);
		else if (found) toast(`There is no document ${number} that you may look at.`);
	}

	/** What a cell says, and how it stands. */
	function look(row: Row, column: Column) {
		const worked = grid.worked(row, column);
		const value = 'value' in worked ? worked.value : null;
		return {
			text: 'fault' in worked ? '–' : cellInColumn(column, value, decimals.get(column.id) ?? 0),
			right: typeof value === 'number',
			fault: grid.faultOf(row, column)
		};
	}
	function inside(row: number, column: number): boolean {
		const c = grid.chosen;
		return c !== null && row >= c.top && row <= c.bottom && column >= c.left && column <= c.right;
	}
	const TOTAL_WORDS = { none: '', sum: 'sum', count: 'in all', mean: 'mean', least: 'least', most: 'most' };
</script>

<svelte:window onpointerup={() => (dragging = false)} />
<!-- The keys move within the grid as a whole, so its scrolling part takes the focus. -->
<div
	bind:this={scroller}
	class="schedule min-h-0 flex-1 overflow-auto outline-offset-[-2px] select-none"
	role="grid"
	aria-label={label}
	aria-rowcount={grid.rows.length + 1}
	aria-colcount={grid.columns.length + 1}
	tabindex="0"
	onkeydown={keys}
	oncopy={copy}
	oncut={copy}
	onpaste={paste}
	onfocus={() => !grid.cursor && grid.step(0, 0)}
>
	<div class="relative min-h-full" style="width:{total}px" role="presentation">
		<div class="sticky top-0 z-20 border-b border-ink bg-film" role="rowgroup">
			<div class="grid h-[29px] text-[12px]" style="grid-template-columns:{template}" role="row">
				<span class="sticky left-0 z-10 bg-film" role="columnheader" aria-label="Row"></span>
				{#each grid.columns as column, i (column.id)}
					{@const sort = grid.arrangement.sort}
					<span
						class="flex items-center border-l border-rule-2 bg-film"
						style={stays(i)}
						role="columnheader"
						aria-colindex={i + 2}
						aria-sort={sort?.column === column.id ? (sort.descending ? 'descending' : 'ascending') : 'none'}
					>
						{#snippet face()}<span class="truncate font-semibold">{column.name}</span>
							{#if column.unit}<span class="shrink-0 text-ink-2">{column.unit}</span>{/if}
							{#if column.required}<span class="shrink-0 text-fault" aria-label="must not be empty">*</span
								>{/if}
							<span class="ml-auto shrink-0 text-ink-2" aria-hidden="true"
								>{sort?.column === column.id
									? sort.descending
										? '▾'
										: '▴'
									: grid.arrangement.filters[column.id]
										? '⊂'
										: ''}</span
							>{/snippet}
						<Menu
							{face}
							class="flex h-full min-w-0 flex-1 items-center gap-1 px-2 text-left"
							align="start"
							groups={[
								[
									{ word: 'Sort upward, for me', act: () => grid.sortBy(column.id, false) },
									{ word: 'Sort downward, for me', act: () => grid.sortBy(column.id, true) },
									sort && { word: 'In their own order', act: () => grid.sortBy(column.id, null) },
									{
										word: grid.frozen === i + 1 ? 'Let the columns move' : 'Keep in sight up to here',
										act: () => grid.freeze(grid.frozen === i + 1 ? 0 : i + 1)
									}
								],
								writes && [
									{ word: 'Change column…', act: () => settle(column, i) },
									{ word: 'Column before…', act: () => settle(null, i) },
									{ word: 'Move left', disabled: i === 0, act: () => grid.moveColumn(column, -1) },
									{
										word: 'Move right',
										disabled: i === grid.columns.length - 1,
										act: () => grid.moveColumn(column, 1)
									},
									{ word: 'Delete column', disabled: grid.columns.length === 1, act: () => remove(column) }
								]
							]}
						/>
					</span>
				{/each}
			</div>
			{#if filtering}<div
					class="grid h-[30px] border-t border-rule-2"
					style="grid-template-columns:{template}"
					role="row"
				>
					<span class="sticky left-0 z-10 bg-film" role="gridcell"></span>
					{#each grid.columns as column, i (column.id)}
						{@const held = grid.arrangement.filters[column.id]}
						<span class="border-l border-rule-2 bg-film p-0.5" style={stays(i)} role="gridcell">
							{#if column.kind === 'choice'}<Select
									class="h-full w-full !py-0 text-[12px]"
									label="Only rows whose {column.name} is"
									choices={[
										{ value: '', label: 'all' },
										...column.choices.map((choice) => ({ value: choice, label: choice }))
									]}
									value={held && 'oneOf' in held ? (held.oneOf[0] ?? '') : ''}
									choose={(one) => grid.filter(column.id, one ? { oneOf: [one] } : null)}
								/>{:else}<input
									class="field h-full w-full !py-0 text-[12px]"
									type="search"
									aria-label="Only rows whose {column.name} has"
									value={held && 'has' in held ? held.has : ''}
									oninput={(e) =>
										grid.filter(column.id, e.currentTarget.value ? { has: e.currentTarget.value } : null)}
								/>{/if}
						</span>
					{/each}
				</div>{/if}
		</div>
		<div class="relative bg-sheet" role="rowgroup" style:height="{$virtual.getTotalSize()}px">
			{#each $virtual.getVirtualItems() as at (at.key)}
				{@const row = grid.rows[at.index]}
				{#if row}
					<div
						class="absolute grid w-full border-b border-rule-2"
						style="grid-template-columns:{template};height:{ROW}px;transform:translateY({at.start}px)"
						role="row"
						aria-rowindex={at.index + 2}
					>
						<span
							class="sticky left-0 z-[3] flex items-center justify-end border-r border-rule bg-film pr-1.5 font-mono text-[11px] text-ink-2"
							role="rowheader">{places.get(row.id)}</span
						>
						{#each grid.columns as column, i (column.id)}
							{@const key = cellKey(row.id, column.id)}
							{@const said = look(row, column)}
							{@const here = grid.cursor?.row === row.id && grid.cursor.column === column.id}
							{@const other = elsewhere.get(key)}
							<div
								class="relative flex items-center overflow-hidden border-r border-rule-2 px-1.5
									{said.right ? 'justify-end font-mono text-[12px]' : ''}
									{inside(at.index, i) ? 'bg-act-soft' : said.fault ? 'bg-fault-soft' : 'bg-sheet'}
									{column.kind === 'formula' ? 'text-ink-2' : ''}
									{here ? 'outline-2 -outline-offset-2 outline-act' : other ? 'outline-2 -outline-offset-2' : ''}"
								style="{stays(i)}{other && !here ? `;outline-color:${colourOf(other.id)}` : ''}"
								role="gridcell"
								tabindex="-1"
								aria-colindex={i + 2}
								aria-selected={inside(at.index, i)}
								aria-invalid={said.fault ? 'true' : undefined}
								title={said.fault ?? (other ? `${other.name} is here` : undefined)}
								data-cell={key}
								onpointerdown={(e) => press(e, { row: row.id, column: column.id })}
								onpointerenter={() => over({ row: row.id, column: column.id })}
								ondblclick={() => grid.edit()}
							>
								{#if here && grid.editing !== null && column.kind === 'choice'}
									<SuggestedInput
										bind:input={field}
										class={EDITED}
										label={column.name}
										suggestions={column.choices}
										bind:value={grid.editing}
										onkeydown={editKeys}
										onblur={() => grid.commit()}
									/>
								{:else if here && grid.editing !== null}
									<input
										bind:this={field}
										class={EDITED}
										aria-label={column.name}
										bind:value={grid.editing}
										onkeydown={editKeys}
										onblur={() => grid.commit()}
									/>
								{:else if column.kind === 'document' && said.text && !said.fault}<button
										class="link truncate font-mono text-[12px]"
										tabindex="-1"
										onclick={(e) => (e.ctrlKey || !writes || here) && void followNumber(said.text)}
										>{said.text}</button
									>
								{:else}<span class="truncate">{said.text}</span>{/if}
								{#if marked.has(key)}<span
										class="absolute top-0 right-0 border-[5px] border-transparent border-t-new border-r-new"
										title="There is a remark here"
									></span>{/if}
								{#if other && !here}<span
										class="absolute top-0 max-w-[60%] truncate px-1 text-[10px] leading-[12px] text-white {said.right
											? 'left-0'
											: 'right-0'}"
										style="background:{colourOf(other.id)}">{other.name}</span
									>{/if}
							</div>
						{/each}
					</div>
				{/if}
			{/each}
		</div>
		{#if !grid.rows.length}<p class="p-4 text-ink-2">
				{grid.schedule.rows.length
					? 'No row fits the filter.'
					: writes
						? 'There is no row yet. Add one, or paste from a sheet.'
						: 'There is no row yet.'}
			</p>{/if}
		{#if summed && grid.rows.length}<div
				class="sticky bottom-0 z-20 grid h-7 border-t border-ink bg-film text-[12px]"
				style="grid-template-columns:{template}"
				role="row"
			>
				<span class="sticky left-0 z-[3] bg-film" role="rowheader" aria-label="Totals"></span>
				{#each grid.columns as column, i (column.id)}
					{@const value = grid.total(column)}
					<span
						class="flex items-center justify-end gap-1 truncate border-r border-rule-2 bg-film px-1.5"
						style={stays(i)}
						role="gridcell"
						>{#if value !== null}<span class="text-ink-2">{TOTAL_WORDS[column.total]}</span><span
								class="font-mono font-semibold"
								>{cellShown(
									column.total === 'count' ? { kind: 'number', unit: '' } : column,
									Number(value.toPrecision(10))
								)}</span
							>{/if}</span
					>
				{/each}
			</div>{/if}
	</div>
</div>
