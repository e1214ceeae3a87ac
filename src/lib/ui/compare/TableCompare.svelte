<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { onMount } from 'svelte';
	import { keyColumns, type ComparedTable, type Table } from '../../core/compare/tables';
	import { tablesToShow } from '../viewers/shown';
	import { compareInWorker } from './ask';
	import type { Side } from './sheet-pair';

	/** Two schedules cell by cell, rows matched by a key column. */
	let {
		before,
		after,
		failed,
		total = $bindable(0),
		current = $bindable(-1)
	}: {
		before: Side;
		after: Side;
		failed: (sentence: string) => void;
		total: number;
		current: number;
	} = $props();

	let tables = $state.raw<{ before: Table[]; after: Table[] } | null>(null);
	let compared = $state.raw<ComparedTable[] | null>(null);
	let sheet = $state(0);
	let key = $state<string>();
	let all = $state(false);
	let ground = $state<HTMLElement>();
	const abort = new AbortController();
	/** Most rows drawn at a time. */
	const MOST = 2_000;

	const one = $derived(compared?.[sheet]);
	const keys = $derived.by(() => {
		const [a, b] = [tables?.before, tables?.after].map((list) =>
			list?.length === 1 ? list[0] : list?.find((t) => t.name === one?.name)
		);
		return a && b ? keyColumns(a, b) : [];
	});
	const rows = $derived((one?.rows ?? []).filter((r) => all || r.kind !== 'same'));
	$effect(() => {
		total = (one?.rows ?? []).filter((r) => r.kind !== 'same').length;
	});

	async function compare() {
		if (tables) compared = await compareInWorker('tables', { ...tables, key }, { signal: abort.signal });
	}
	onMount(() => {
		void (async () => {
			try {
				const [a, b] = await Promise.all([
					tablesToShow(before, abort.signal),
					tablesToShow(after, abort.signal)
				]);
				tables = { before: a, after: b };
				await compare();
				sheet = Math.max(
					0,
					compared!.findIndex((t) => t.kind !== 'same')
				);
			} catch (error) {
				if (!abort.signal.aborted) failed((error as Error).message);
			}
		})();
		return () => abort.abort();
	});

	const WORD = { same: '', added: 'added', removed: 'taken away', changed: 'changed' };
	const LOOK = { same: '', added: 'bg-done-soft', removed: 'bg-fault-soft line-through', changed: '' };

	/** Brings a changed row into view. */
	export function show(index: number) {
		current = index;
		ground?.querySelectorAll('tr[data-changed]')[index]?.scrollIntoView({ block: 'center' });
	}
	const numbers = $derived.by(() => {
		let n = 0;
		return rows.map((r) => (r.kind === 'same' ? null : n++));
	});
</script>

<div class="flex h-full flex-col">
	<div
		class="flex shrink-0 flex-wrap items-center gap-4 border-b border-rule bg-sheet px-3 py-1.5 text-[12px]"
	>
		{#if (compared?.length ?? 0) > 1}<label
				>Sheet <Select
					class="h-7 w-auto py-0"
					choices={compared!.map((t, i) => ({
						value: String(i),
						label:
							t.kind === 'same' ? t.name : `${t.name} (${t.kind === 'changed' ? t.changes : WORD[t.kind]})`
					}))}
					value={String(sheet)}
					choose={(i) => (sheet = Number(i))}
				/></label
			>{/if}
		{#if keys.length}<label
				>Rows told apart by <Select
					class="h-7 w-auto py-0"
					choices={[
						{ value: '', label: `${one?.key ?? ''} (found)` },
						...keys.map((k) => ({ value: k, label: k }))
					]}
					value={key ?? ''}
					choose={(k) => {
						key = k || undefined;
						void compare();
					}}
				/></label
			>{:else if one}<span class="text-ink-2">No column tells rows apart; they are compared in order.</span
			>{/if}
		<label class="flex items-center gap-1.5"
			><input type="checkbox" class="accent-act" bind:checked={all} />with what did not change</label
		>
	</div>
	<div class="min-h-0 flex-1 overflow-auto" bind:this={ground}>
		{#if !one}<p class="p-6 text-ink-2" role="status">comparing</p>
		{:else if !rows.length}<p class="p-6 text-ink-2">
				Not a cell differs{(compared?.length ?? 0) > 1 ? ' on this sheet' : ''}.
			</p>
		{:else}
			<table
				class="border-separate border-spacing-0 bg-sheet [&_td]:border-r [&_td]:border-b [&_td]:border-rule-2 [&_td]:px-2 [&_td]:py-0.5 [&_th]:border-r [&_th]:border-b [&_th]:border-rule [&_th]:px-2 [&_th]:py-1"
			>
				<thead class="sticky top-0 bg-film text-[12px]"
					><tr
						><th>No</th><th>Row</th>{#each one.columns as c (c.name + c.kind)}<th class={LOOK[c.kind]}
								>{c.name}{#if c.kind !== 'same'}<span class="ml-1 font-normal">({WORD[c.kind]})</span
									>{/if}</th
							>{/each}</tr
					></thead
				>
				<tbody>
					{#each rows.slice(0, MOST) as row, i (i)}
						<tr
							data-changed={row.kind === 'same' ? undefined : ''}
							class="{LOOK[row.kind]} {numbers[i] !== null && numbers[i] === current
								? 'outline-2 -outline-offset-2 outline-plank'
								: ''}"
						>
							<td class="font-mono text-[12px]">{numbers[i] === null ? '' : numbers[i]! + 1}</td>
							<td class="text-[12px] whitespace-nowrap text-ink-2 no-underline">{WORD[row.kind]}</td>
							{#each row.cells as cell, c (c)}<td
									class={typeof cell === 'string' ? LOOK[one.columns[c]!.kind] : 'bg-lock-soft'}
									>{#if typeof cell === 'string'}{cell}{:else}<s class="text-fault"
											>{cell.before || '(empty)'}</s
										>
										<b class="font-semibold">{cell.after || '(empty)'}</b>{/if}</td
								>{/each}
						</tr>
					{/each}
				</tbody>
			</table>
			{#if rows.length > MOST}<p class="p-3 text-ink-2">
					{rows.length - MOST} more rows are not drawn; they are in the files.
				</p>{/if}
		{/if}
	</div>
</div>
