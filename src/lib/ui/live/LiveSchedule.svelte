<script lang="ts">
	import { onMount } from 'svelte';
	import { toast } from '../kit/toast';
	import { cellShown, cellText } from '../../core/schedule/cell';
	import { columnSchema, type Column } from '../../core/schedule/column';
	import RemarksPanel from '../remarks/RemarksPanel.svelte';
	import { plural } from '../platform/words';
	import ColumnDialog from './ColumnDialog.svelte';
	import { shownOf, side } from '../documents/side-tab.svelte';
	import Tabs from '../kit/Tabs.svelte';
	import { Grid } from './grid.svelte';
	import LiveBar from './LiveBar.svelte';
	import type { LiveDocument } from './live-document';
	import ScheduleCells from './ScheduleCells.svelte';
	import TakeScheduleDialog from './TakeScheduleDialog.svelte';

	/** A schedule that several fill in at once: the grid, who is where in it, and the remarks beside it. */
	let {
		room,
		mode,
		me,
		document: id,
		number,
		code,
		versions,
		mayDownload,
		remarks,
		more
	}: LiveDocument = $props();

	let grid = $state.raw<Grid | null>(null);
	let cells = $state<ReturnType<typeof ScheduleCells>>();
	let taking = $state(false);
	let beside = $state(false);
	let filtering = $state(false);
	/** Whoever comes back to a filtered schedule sees what filters it. */
	$effect(() => {
		if (grid?.opened && Object.keys(grid.arrangement.filters).length) filtering = true;
	});
	/** A column being changed, or the place of a new one. */
	let settling = $state.raw<{ column: Column | null; at: number } | null>(null);

	onMount(() => {
		const open = new Grid(room, me, () => mode === 'write');
		grid = open;
		return () => open.close();
	});
	const writes = $derived(mode === 'write');
	/** Does something to the rows, and leaves the keys with them. */
	function act(doing: (grid: Grid) => void) {
		if (!grid) return;
		doing(grid);
		cells?.take();
	}
	const fault = $derived(grid?.row && grid.column ? grid.faultOf(grid.row, grid.column) : null);
	/** What is said of more than one chosen cell. */
	const said = $derived.by(() => {
		const chosen = grid?.chosen;
		if (!grid || !chosen) return '';
		const count = (chosen.bottom - chosen.top + 1) * (chosen.right - chosen.left + 1);
		if (count < 2) return '';
		const numbers = grid
			.copied()
			.flat()
			.filter((c) => c !== '')
			.map(Number)
			.filter((n) => Number.isFinite(n));
		const sum = numbers.reduce((a, b) => a + b, 0);
		const plain = { kind: 'number', unit: '' } as const;
		return `${plural(count, 'cell')}${numbers.length > 1 ? `, sum ${cellShown(plain, Number(sum.toPrecision(12)))}, mean ${cellShown(plain, Number((sum / numbers.length).toPrecision(6)))}` : ''}`;
	});
	function remarkOnCell() {
		if (!grid?.row || !grid.column) return void toast('Choose a cell first, then remark on it.');
		const { row, column } = grid;
		const first = grid.columns[0]!;
		const name = cellText(row.cells[first.id]) || `row ${grid.schedule.rows.indexOf(row) + 1}`;
		remarks.begin(
			{ on: 'cell', row: row.id, column: column.id },
			`${name}, ${column.name}: ${cellText(row.cells[column.id])}`
		);
		beside = true;
	}
	const gone = (anchor: { row: string; column: string }) =>
		grid !== null &&
		grid.opened &&
		(!grid.schedule.rows.some((r) => r.id === anchor.row) ||
			!grid.columns.some((c) => c.id === anchor.column));
	/** What is chosen beside the schedule comes into view. */
	$effect(() => {
		const row = remarks.rows.find((r) => r.number === remarks.chosen);
		if (!grid || row?.anchor.on !== 'cell' || gone(row.anchor)) return;
		const { row: at, column } = row.anchor;
		grid.choose({ row: at, column });
		cells?.reveal();
	});
	const tabs = $derived([
		{ value: 'remarks', word: `Remarks ${remarks.open.length}`, panel: remarksPanel, class: 'bg-film' },
		...more
	]);
</script>

{#snippet remarksPanel()}<RemarksPanel
		{remarks}
		titled={false}
		table="/{code}/document/{id}/remarks"
		label={versions[0]!.label}
		newest
		gone={(row) => row.anchor.on === 'cell' && gone(row.anchor)}
		compose={{ label: 'On the chosen cell', run: remarkOnCell }}
	/>{/snippet}
<div class="flex h-full flex-col">
	<LiveBar line={grid?.line ?? null} {me}>
		{#snippet mine()}
			{#if writes}<span class="tag bg-done-soft text-done">You write here</span>
			{:else}<span class="tag bg-rule-2">You read here</span>{/if}
		{/snippet}
		{#if mayDownload}<button class="button" onclick={() => (taking = true)}>Export…</button>{/if}
		<button class="button lg:hidden" aria-expanded={beside} onclick={() => (beside = !beside)}
			>{beside ? 'Schedule' : `Remarks ${remarks.open.length}`}</button
		>
	</LiveBar>
	{#if grid}
		<div
			class="flex flex-wrap items-center gap-1.5 border-b border-rule bg-sheet px-3 py-1"
			role="toolbar"
			aria-label="Schedule"
		>
			{#if writes}
				<button class="button" onclick={() => act((g) => g.insert(1, 'end'))}>Add row</button>
				<button
					class="button max-md:hidden"
					disabled={!grid.chosen}
					onclick={() => act((g) => g.insert(1, 'before'))}>Row above</button
				>
				<button class="button" disabled={!grid.chosen} onclick={() => act((g) => g.removeChosen())}
					>Delete {grid.chosenRows.length > 1 ? plural(grid.chosenRows.length, 'row') : 'row'}</button
				>
				<button
					class="button max-md:hidden"
					aria-label="Move rows up"
					disabled={!grid.chosen || grid.arrangement.sort !== null}
					onclick={() => act((g) => g.shift(-1))}>▴</button
				><button
					class="button max-md:hidden"
					aria-label="Move rows down"
					disabled={!grid.chosen || grid.arrangement.sort !== null}
					onclick={() => act((g) => g.shift(1))}>▾</button
				>
				<button
					class="button max-md:hidden"
					disabled={grid.chosenRows.length < 2}
					onclick={() => act((g) => g.fillDown(false))}>Fill down</button
				>
				<button
					class="button max-md:hidden"
					disabled={grid.chosenRows.length < 2}
					onclick={() => act((g) => g.fillDown(true))}>Fill series</button
				>
				<button
					class="button max-md:hidden"
					onclick={() => (settling = { column: null, at: grid!.columns.length })}>Add column…</button
				>
				<button class="button" disabled={!grid.canUndo} onclick={() => grid?.undo()}>Undo</button>
				<button class="button max-md:hidden" disabled={!grid.canRedo} onclick={() => grid?.redo()}
					>Redo</button
				>
			{/if}
			<button class="button" aria-pressed={filtering} onclick={() => (filtering = !filtering)}>Filter</button>
			<span class="ml-auto font-mono text-[12px] text-ink-2"
				>{grid.filtered
					? `${grid.rows.length} of ${plural(grid.schedule.rows.length, 'row')}`
					: plural(grid.schedule.rows.length, 'row')}</span
			>
			{#if grid.faults.size}<button
					class="button !border-fault text-fault"
					onclick={() => act((g) => g.nextFault())}>{plural(grid.faults.size, 'cell')} to look at</button
				>{/if}
		</div>
	{/if}
	<div class="relative flex min-h-0 flex-1">
		<div class="flex min-w-0 flex-1 flex-col bg-film">
			{#if grid?.opened}
				<ScheduleCells
					bind:this={cells}
					{grid}
					{code}
					{writes}
					{filtering}
					label="Schedule {number}"
					remarked={remarks.open.flatMap((r) => (r.anchor.on === 'cell' ? [r.anchor] : []))}
					settle={(column, at) => (settling = { column, at })}
				/>
				<p
					class="h-7 shrink-0 truncate border-t border-rule bg-sheet px-3 text-[12px] leading-7"
					role="status"
				>
					{#if fault}<span class="text-fault"><b class="font-semibold">{grid.column?.name}:</b> {fault}</span>
					{:else if said}<span class="font-mono">{said}</span>
					{:else if grid.column}<span class="text-ink-2"
							>{grid.column.name}{grid.column.kind === 'formula' ? ` = ${grid.column.formula}` : ''}</span
						>
					{:else}<span class="text-ink-2"
							>Arrows move, Enter or a letter writes, Shift with arrows chooses several; copy and paste work
							to and from any sheet.</span
						>{/if}
				</p>
			{:else}<p class="p-4 text-ink-2" role="status">opening</p>{/if}
		</div>
		<Tabs
			bind:value={() => shownOf(tabs), (tab) => (side.tab = tab)}
			class="{beside
				? 'absolute inset-0 z-30 flex'
				: 'hidden'} shrink-0 border-l border-rule bg-sheet lg:static lg:flex lg:w-[320px]"
			{tabs}
		/>
	</div>
</div>
{#if grid}
	{#if taking}<TakeScheduleDialog bind:open={taking} document={id} {number} schedule={grid.schedule} />{/if}
	{#if settling !== null}<ColumnDialog
			bind:open={() => settling !== null, (open) => !open && (settling = null)}
			column={settling?.column ?? null}
			others={grid.columns.filter((c) => c !== settling?.column)}
			keep={(fields) =>
				settling?.column
					? grid?.changeColumn(settling.column, fields)
					: grid?.addColumn(settling!.at, columnSchema.parse(fields))}
		/>{/if}
{/if}
