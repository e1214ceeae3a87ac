<script lang="ts" generics="Row">
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { untrack } from 'svelte';
	import type { SvelteSet } from 'svelte/reactivity';
	import { between, inGroups, inOrder, nextOrder, type Column, type Order } from './table';

	/**
	 * Rows of one kind, with their columns as data. Heads sort; rows are ticked one by one, with Shift from the last one
	 * on, or all; the arrows go through them, Space ticks and Enter opens. One that `fills` its place scrolls in itself
	 * under its head, and draws only the rows that are in sight.
	 */
	let {
		label,
		rows,
		key,
		columns,
		empty,
		selection,
		tickName,
		open,
		rowClass,
		group,
		fills = false,
		lines = false,
		least = '',
		served,
		more,
		groupCount
	}: {
		/** What it lists, for screen readers. */
		label: string;
		rows: readonly Row[];
		key: (row: Row) => string;
		columns: readonly Column<Row>[];
		/** What stands there when there are no rows: what will, and how it comes. */
		empty: string;
		/** Keys of the rows that are ticked. */
		selection?: SvelteSet<string>;
		/** What the box of a row is called; null for rows that cannot be ticked. */
		tickName?: (row: Row) => string | null;
		/** What Enter on a row does. */
		open?: (row: Row) => void;
		rowClass?: (row: Row) => string;
		/** What a row stands under; those of one group stay together, whatever they are sorted by. */
		group?: (row: Row) => string;
		/** It takes all the height of its place, however many rows it has. */
		fills?: boolean;
		/** On a phone each row becomes a few lines. */
		lines?: boolean;
		/** A class for the least width, under which it goes sideways. */
		least?: string;
		/** The rows come in their order, and are asked for again in another one. */
		served?: { order: Order | null; change: (order: Order | null) => void };
		/** There are more rows than these; told when the last of them are near. */
		more?: (() => void) | undefined;
		/** How many rows stand under a head, where not all of them are here. */
		groupCount?: (head: string) => number;
	} = $props();

	/** Above so many rows, only those in sight are drawn. */
	const MANY = 150;
	/** Stronger than what makes lines of rows, which shows every cell. */
	const FROM = { sm: 'max-sm:hidden!', md: 'max-md:hidden!' };
	const wide = ({ from, until }: Column<Row>) => (from ? FROM[from] : until ? 'md:hidden' : '');

	let own = $state<Order | null>(null);
	const order = $derived(served ? served.order : own);
	const groups = $derived(inGroups(served ? rows : inOrder(rows, columns, order), group));
	function sortBy(column: string) {
		const next = nextOrder(order, column);
		if (served) served.change(next);
		else own = next;
	}
	const shown = $derived(groups.flatMap((one) => one.rows));
	const keys = $derived(shown.map(key));
	/** What stands under each other: rows, and the heads of their groups before them. */
	const stack = $derived(
		groups.flatMap(({ head, rows }) => [
			...(head === null ? [] : [{ head, count: groupCount?.(head) ?? rows.length, id: `head of ${head}` }]),
			...rows.map((row) => ({ row, id: key(row) }))
		])
	);
	const tickable = $derived(
		selection ? shown.filter((row) => tickName?.(row) != null).map((row) => key(row)) : []
	);
	const width = $derived(columns.length + (selection ? 1 : 0));
	/** The row that the keyboard is at, and the one that Shift counts from. */
	let at = $state<string | null>(null);
	let from = $state<string | null>(null);
	/** The row that the keyboard goes to as soon as it is drawn. */
	let wanted = $state<string | null>(null);

	let box = $state<HTMLDivElement>();
	const many = $derived(fills && rows.length > MANY);
	const virtual = createVirtualizer<HTMLDivElement, HTMLTableRowElement>({
		count: 0,
		getScrollElement: () => box ?? null,
		estimateSize: () => 34,
		overscan: 12
	});
	$effect(() => {
		const [of, element, count] = [stack, box, many ? stack.length : 0];
		untrack(() =>
			$virtual.setOptions({
				count,
				getScrollElement: () => element ?? null,
				getItemKey: (i) => of[i]?.id ?? i
			})
		);
	});
	const measured = (row: HTMLTableRowElement) => void (many && $virtual.measureElement(row));
	const drawn = $derived(
		many
			? $virtual
					.getVirtualItems()
					.flatMap(({ index }) => (stack[index] ? [{ index, line: stack[index] }] : []))
			: stack.map((line, index) => ({ index, line }))
	);
	const stop = $derived(
		drawn.some(({ line }) => line.id === at) ? at : (drawn.find(({ line }) => 'row' in line)?.line.id ?? null)
	);
	$effect(() => {
		const there = drawn.find(({ line }) => line.id === wanted);
		if (wanted === null || !there) return;
		box?.querySelector<HTMLElement>(`tr[data-index="${there.index}"]`)?.focus();
		wanted = null;
	});
	const above = $derived(many ? ($virtual.getVirtualItems()[0]?.start ?? 0) : 0);
	const below = $derived(many ? $virtual.getTotalSize() - ($virtual.getVirtualItems().at(-1)?.end ?? 0) : 0);

	/** So many rows before the end the next ones are asked for. */
	const NEAR = 40;
	$effect(() => {
		const last = drawn.at(-1)?.index ?? 0;
		if (more && last >= stack.length - NEAR) untrack(() => more());
	});

	/** Ticks a row or takes its tick; with Shift everything from the last one on becomes as that. */
	function mark(id: string, range: boolean) {
		if (!selection) return;
		const on = !selection.has(id);
		const meant = range && from !== null ? between(keys, from, id) : [id];
		for (const one of meant)
			if (tickable.includes(one)) {
				if (on) selection.add(one);
				else selection.delete(one);
			}
		from = id;
		at = id;
	}
	function markAll() {
		const on = !tickable.every((id) => selection!.has(id));
		for (const id of tickable)
			if (on) selection!.add(id);
			else selection!.delete(id);
	}
	function go(to: number) {
		const next = Math.max(0, Math.min(keys.length - 1, to));
		wanted = keys[next] ?? null;
		// A row far away is drawn once it has been scrolled to.
		if (many) $virtual.scrollToIndex(stack.findIndex((line) => line.id === wanted));
	}
	function press(event: KeyboardEvent, row: Row, id: string) {
		if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
		const here = keys.indexOf(id);
		const steps: Record<string, number> = {
			ArrowDown: here + 1,
			ArrowUp: here - 1,
			Home: 0,
			End: keys.length - 1
		};
		const to = steps[event.key];
		if (to !== undefined) go(to);
		else if (event.key === ' ' && selection) mark(id, event.shiftKey);
		else if (event.key === 'Enter' && open) open(row);
		else return;
		event.preventDefault();
	}
</script>

<div bind:this={box} class="overflow-auto {fills ? 'h-full min-h-0' : ''}">
	<table
		class="w-full bg-sheet {lines ? 'lines-on-phone' : ''} {least}"
		aria-label={label}
		aria-rowcount={many ? stack.length + 1 : undefined}
	>
		<thead class="text-[12px] {fills ? 'sticky top-0 z-10' : ''}">
			<tr class="border-y border-ink bg-film">
				{#if selection}<th class="w-8 px-2 py-1.5"
						>{#if tickable.length > 1}<input
								type="checkbox"
								class="accent-act"
								aria-label="Tick all"
								checked={tickable.every((id) => selection.has(id))}
								onchange={markAll}
							/>{:else}<span class="sr-only">Tick</span>{/if}</th
					>{/if}
				{#each columns as column (column.id)}
					<th
						class="px-2 py-1.5 {wide(column)} {column.right ? 'text-right' : ''}"
						aria-sort={order?.column === column.id ? (order.down ? 'descending' : 'ascending') : undefined}
						>{#if column.headCell}{@render column.headCell(column)}{:else if column.quiet}<span
								class="sr-only">{column.head}</span
							>{:else if column.by}<button
								type="button"
								class="inline-flex items-center gap-1 hover:text-act"
								onclick={() => sortBy(column.id)}
								>{column.head}{#if order?.column === column.id}{@const Sign = order.down
										? ArrowDown
										: ArrowUp}<Sign size={12} aria-hidden="true" />{/if}</button
							>{:else}{column.head}{/if}</th
					>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#if above}<tr aria-hidden="true"><td colspan={width} style:height="{above}px"></td></tr>{/if}
			{#each drawn as { index, line } (line.id)}
				{#if 'row' in line}{@render rowOf(line.row, line.id, index)}{:else}<tr
						{@attach measured}
						data-index={index}
						class="border-b border-rule bg-film"
						><th class="px-2 py-1.5 font-semibold" colspan={width} scope="rowgroup"
							>{line.head} <span class="font-normal text-ink-2">{line.count}</span></th
						></tr
					>{/if}
			{:else}<tr><td colspan={width} class="p-6 text-ink-2">{empty}</td></tr>{/each}
			{#if below > 0}<tr aria-hidden="true"><td colspan={width} style:height="{below}px"></td></tr>{/if}
		</tbody>
	</table>
</div>

{#snippet rowOf(row: Row, id: string, index: number)}
	<tr
		{@attach measured}
		data-index={index}
		data-key={id}
		aria-rowindex={many ? index + 2 : undefined}
		tabindex={selection || open ? (id === stop ? 0 : -1) : undefined}
		class="border-b border-rule-2 align-baseline {selection?.has(id) ? 'bg-act-soft' : ''} {rowClass?.(row) ??
			''}"
		onkeydown={(event) => press(event, row, id)}
		onfocus={() => (at = id)}
	>
		{#if selection}{@const name = tickName?.(row) ?? null}<td class="px-2 py-[5px]"
				>{#if name !== null}<input
						type="checkbox"
						class="accent-act"
						tabindex="-1"
						aria-label={name}
						checked={selection.has(id)}
						onclick={(event) => mark(id, event.shiftKey)}
					/>{/if}</td
			>{/if}
		{#each columns as column (column.id)}<td
				class="px-2 py-[5px] {wide(column)} {column.right ? 'text-right' : ''} {column.class ?? ''}"
				>{#if column.cell}{@render column.cell(row, column)}{:else}{column.text?.(row) ?? ''}{/if}</td
			>{/each}
	</tr>
{/snippet}
