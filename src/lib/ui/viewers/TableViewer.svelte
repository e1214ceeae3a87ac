<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { columnLetter } from '../../core/compare/tables';
	import type { Shown, ShownTable } from '../../core/files/shown';
	import { tellEncoding, type Encoding, type Told } from '../../core/files/encoding';
	import Select from '../kit/Select.svelte';
	import EncodingChoice from './EncodingChoice.svelte';
	import { readTables } from './read-tables';
	import { bytesToShow, partOf } from './shown';
	import { Unreadable } from '../../formats/package/fault';
	import { plural } from '../platform/words';

	/** Shows a schedule sheet by sheet, as it would be read on paper. */
	let {
		url,
		title,
		mediaType,
		given = null,
		failed
	}: {
		url: string;
		title: string;
		mediaType: string;
		/** What the server made of the file; null where the file itself is read. */
		given?: Extract<Shown, { kind: 'table' }> | null;
		failed: (sentence: string) => void;
	} = $props();

	let tables = $state.raw<ShownTable[] | null>(null);
	let sheet = $state(0);
	let bytes: ArrayBuffer | null = null;
	/** How CSV is encoded; null for files that say it themselves. */
	let told = $state<Told | null>(null);
	const abort = new AbortController();
	const read = async (encoding: Encoding | null) =>
		(tables = await readTables(bytes!, mediaType, { encoding, signal: abort.signal }));
	/** Rows drawn at first, and with each wish for more. */
	const STEP = 1_000;
	let most = $state(STEP);
	/** Pictures of what the lists are of, before the lists. */
	const views = $derived(given?.views ?? []);
	let viewing = $state(untrack(() => Boolean(given?.views)));
	let side = $state(0);
	const one = $derived(tables?.[sheet]);
	const rows = $derived(one?.shown ?? one?.rows ?? []);
	const width = $derived(Math.max(0, ...rows.slice(0, most).map((r) => r.length)));
	/** What is not seen here. */
	const beside = $derived(
		one
			? [
					...(one.formulas ? [plural(one.formulas, 'formula', 'formulas')] : []),
					...(one.comments ? [`${plural(one.comments, 'comment')} on cells`] : [])
				].join(' and ')
			: ''
	);

	onMount(() => {
		void (async () => {
			try {
				if (given) tables = given.tables;
				else {
					bytes = await bytesToShow(url, abort.signal);
					if (mediaType === 'text/csv') told = tellEncoding(new Uint8Array(bytes));
					await read(null);
				}
			} catch (error) {
				if (!abort.signal.aborted)
					failed(error instanceof Unreadable ? error.message : 'The schedule could not be fetched.');
			}
		})();
		return () => abort.abort();
	});
	const figure = (cell: string) => /^-?[\d\s.,]+$/.test(cell);
</script>

<div class="flex h-full flex-col" role="document" aria-label={title}>
	{#if told && (told.by !== 'form' || told.encoding !== 'utf-8')}<EncodingChoice
			{told}
			choose={(encoding) => void read(encoding)}
		/>{/if}
	{#if (tables?.length ?? 0) + views.length > 1}
		<div
			class="flex shrink-0 gap-1 border-b border-rule bg-sheet px-3 py-1"
			role="tablist"
			aria-label="Sheets"
		>
			{#if views.length}<button
					class="button {viewing ? 'bg-frame text-on-frame' : ''}"
					role="tab"
					aria-selected={viewing}
					onclick={() => (viewing = true)}>View</button
				>{/if}
			{#each tables! as t, i (t.name)}{@const chosen = i === sheet && !viewing}<button
					class="button {chosen ? 'bg-frame text-on-frame' : ''}"
					role="tab"
					aria-selected={chosen}
					onclick={() => ((sheet = i), (viewing = false), (most = STEP))}>{t.name}</button
				>{/each}
		</div>
	{/if}
	{#if viewing}<p class="shrink-0 border-b border-rule bg-sheet px-3 py-1">
			<Select
				class="w-auto max-w-[260px]"
				label="From where it is looked at"
				choices={views.map((name, i) => ({ value: String(i), label: name }))}
				value={String(side)}
				choose={(next) => (side = Number(next))}
			/>
		</p>{/if}
	<div class="min-h-0 flex-1 overflow-auto p-4">
		{#if tables === null}<p class="text-ink-2" role="status">opening</p>
		{:else if viewing}{#key side}<img
					class="mx-auto max-h-full max-w-full border border-rule bg-sheet"
					src={partOf(url, 'page', side + 1, 1_600)}
					alt="{title}, {views[side]}"
				/>{/key}
		{:else if !rows.length}<p class="text-ink-2">There is nothing on this sheet.</p>
		{:else}
			<table class="border border-rule bg-sheet text-[13px]">
				<thead
					><tr class="text-[11.5px] text-ink-2"
						><th class="w-9 border border-rule-2"></th>{#each { length: width }, c (c)}<th
								class="border border-rule-2 px-2 text-center font-normal">{columnLetter(c)}</th
							>{/each}</tr
					></thead
				>
				<tbody>
					{#each rows.slice(0, most) as row, r (r)}<tr
							><td class="border border-rule-2 px-1.5 text-right font-mono text-[11px] text-ink-2">{r + 1}</td
							>{#each { length: width }, c (c)}<td
									class="border border-rule-2 px-2 py-0.5 {figure(one?.rows[r]?.[c] ?? '')
										? 'text-right font-mono text-[12px]'
										: ''}">{row[c] ?? ''}</td
								>{/each}</tr
						>{/each}
				</tbody>
			</table>
			{#if beside || one?.cut}<p class="mt-2 text-[12px] text-ink-2">
					{beside ? `This sheet holds ${beside}; here stands what they give.` : ''}
					{one?.cut ? 'There are more rows or columns than are shown here.' : ''}
				</p>{/if}
			{#if rows.length > most}<p class="mt-2">
					<button class="button" onclick={() => (most += STEP)}
						>{plural(rows.length - most, 'more row')}</button
					>
				</p>{/if}
		{/if}
	</div>
</div>
