<script lang="ts">
	import { onMount } from 'svelte';
	import { MEDIA_TYPE } from '../../core/files/media';
	import { FIELD_HEADS, matchColumns, plannedHead, type ColumnOf } from '../../core/register/import';
	import { rowsPasted } from '../../formats/tables/clipboard';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import Table from '../kit/Table.svelte';
	import { toast } from '../kit/toast';
	import { attempt, sentenceOf } from '../platform/api';
	import { dayText, plural } from '../platform/words';
	import { readTables } from '../viewers/read-tables';
	import type { Stages } from './choices';

	/**
	 * Takes in a list: chosen or pasted, its columns matched (as last time, where that is known), tried, and then done.
	 * Nothing changes before the last button.
	 */
	let {
		open = $bindable(false),
		project,
		stages,
		done
	}: { open: boolean; project: string; stages: Stages; done: () => Promise<void> } = $props();

	let known = $state.raw<AnswerOf<'registerColumns'>['columns']>({});
	onMount(
		() => void attempt(async () => void (known = (await cupboard.registerColumns({ project })).columns))
	);

	let list = $state.raw<{ file: string; heads: string[]; rows: string[][] } | null>(null);
	let columns = $state<(ColumnOf | null)[]>([]);
	let fault = $state('');
	let pasted = $state('');
	let reading = $state(false);
	let trial = $state.raw<AnswerOf<'importDeliverables'> | null>(null);
	let leaveOut = $state(false);

	/** Takes the first line with two cells or more for the heads. */
	function take(file: string, all: readonly (readonly string[])[]) {
		const at = all.findIndex((row) => row.filter((cell) => cell.trim()).length > 1);
		const heads = at < 0 ? [] : all[at]!.map((head) => head.trim());
		const rows = all
			.slice(at + 1)
			.map((row) => heads.map((_, i) => row[i] ?? ''))
			.filter((row) => row.some((cell) => cell.trim()));
		if (!heads.length || !rows.length)
			return void (fault = 'There is no list in it: one line of heads, and a line for each deliverable.');
		fault = '';
		list = { file, heads, rows };
		columns = matchColumns(heads, stages, known);
		void tryOut();
	}
	const MEDIA: Record<string, string> = MEDIA_TYPE;
	async function choose(files: FileList | null) {
		const file = files?.[0];
		if (!file) return;
		const ending = file.name.split('.').at(-1)!.toLowerCase();
		if (!['xlsx', 'csv', 'ods'].includes(ending)) return void (fault = 'Choose an XLSX, ODS or CSV file.');
		reading = true;
		try {
			const tables = await readTables(await file.arrayBuffer(), MEDIA[ending]!);
			const fullest = tables.toSorted((a, b) => b.rows.length - a.rows.length)[0];
			take(file.name, fullest?.rows ?? []);
		} catch (error) {
			fault = error instanceof Error ? error.message : sentenceOf(error);
		}
		reading = false;
	}

	/** What is left out stays here: the longest of lists is sent as it is needed. */
	const asked = $derived.by(() => {
		if (!list) return null;
		const taken = columns.flatMap((one, i) => (one === null ? [] : [i]));
		return {
			project,
			file: list.file,
			heads: list.heads,
			columns,
			rows: list.rows.map((row) => row.map((cell, i) => (taken.includes(i) ? cell : '')))
		};
	});
	async function tryOut() {
		trial = null;
		if (!asked || !columns.includes('number')) return;
		trial = await attempt(() => cupboard.importDeliverables({ ...asked, trial: true }));
	}
	const choices = $derived([
		{ value: '', label: 'left out' },
		...(Object.entries(FIELD_HEADS) as [ColumnOf, string][]).map(([value, label]) => ({ value, label })),
		...stages.map((stage) => ({ value: `planned:${stage.key}` as ColumnOf, label: plannedHead(stage) }))
	]);
	function match(at: number, to: string) {
		// Each is taken from one column.
		columns = columns.map((one, i) =>
			i === at ? ((to || null) as ColumnOf | null) : one === to ? null : one
		);
		void tryOut();
	}
	const does = $derived(trial ? trial.added + trial.changed : 0);
	async function takeIn() {
		const answer = await cupboard.importDeliverables({ ...asked!, leaveOut });
		toast(`${plural(answer.added, 'new deliverable')}, ${answer.changed} changed, ${answer.same} the same.`);
	}
	type Told = AnswerOf<'importDeliverables'>['lines'][number];
	const value = (text: string) => (/^\d{4}-\d\d-\d\d$/.test(text) ? dayText(text) : text || 'nothing');
	const becomes = (row: Told) =>
		row.fate === 'refused'
			? row.why
			: row.fate === 'new'
				? 'joins the register'
				: row.changes.map(({ what, from, to }) => `${what}: ${value(from)} → ${value(to)}`).join('; ');
</script>

<Dialog bind:open title="Import a list" wide>
	{#if !list}
		<p>
			A list has a line of heads, and a line for each deliverable: its number and title, and as you have them
			department, who is responsible, weight, and a planned day for each stage. An empty cell leaves what is
			there. What an export of the register writes is such a list; taken in again it changes nothing.
		</p>
		<label class="button w-fit"
			>{reading ? 'Reading…' : 'Choose a file…'}<input
				type="file"
				class="sr-only"
				accept=".xlsx,.ods,.csv"
				disabled={reading}
				onchange={(event) => void choose(event.currentTarget.files)}
			/></label
		>
		<Field
			label="Or paste cells from a sheet"
			name="pasted"
			bind:value={pasted}
			lines={6}
			maxlength={2_000_000}
			mono
		/>
		{#if fault}<p class="text-fault" role="alert">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button class="button" onclick={() => (open = false)}>Cancel</button>
			<button
				class="button button-act"
				disabled={!pasted.trim()}
				onclick={() => take('pasted cells', rowsPasted(pasted))}>Read the cells</button
			>
		</div>
	{:else}
		<Form
			act={takeIn}
			{done}
			button={does ? `Take in ${plural(does, 'line')}` : 'Nothing to take in'}
			disabled={!does || (trial !== null && trial.refused > 0 && !leaveOut)}
			cancel={() => (list = null)}
		>
			<p>
				<b class="font-semibold">{list.file}</b>: {plural(list.rows.length, 'line')}. What does each column
				hold? It is remembered for the next list with these heads.
			</p>
			<div class="flex gap-2 overflow-x-auto pb-1">
				{#each list.heads as head, i (i)}<div class="w-[150px] shrink-0 border border-rule p-1.5">
						<p class="truncate font-semibold" title={head}>{head || '(no head)'}</p>
						<p class="truncate text-[12px] text-ink-2" title={list.rows[0]?.[i]}>
							{list.rows[0]?.[i] || '–'}
						</p>
						<Select
							label="What {head} holds"
							{choices}
							value={columns[i] ?? ''}
							choose={(to) => match(i, to)}
							class={columns[i] ? '!border-act' : ''}
						/>
					</div>{/each}
			</div>
			{#if !columns.includes('number')}<p class="text-fault" role="alert">
					Say which column holds the number.
				</p>
			{:else if trial}
				<p aria-live="polite">
					<b class="font-semibold">{trial.added}</b> new ·
					<b class="font-semibold">{trial.changed}</b>
					changed · <b class="font-semibold">{trial.same}</b> the same ·
					<b class="font-semibold {trial.refused ? 'text-fault' : ''}">{trial.refused}</b> refused. Nothing has
					changed yet.
				</p>
				<div class="h-[30vh] min-h-[140px] border border-rule">
					<Table
						label="What becomes of each line"
						rows={trial.lines}
						key={(row) => String(row.line)}
						empty="Every line is in the register as it stands in the list."
						fills
						rowClass={(row) => (row.fate === 'refused' ? 'bg-fault-soft' : '')}
						columns={[
							{ id: 'line', head: 'Line', text: (row: Told) => String(row.line), right: true },
							{ id: 'fate', head: 'Becomes', text: (row: Told) => row.fate, class: 'font-semibold' },
							{
								id: 'number',
								head: 'Number',
								text: (row: Told) => row.number,
								class: 'font-mono text-[12px] whitespace-nowrap'
							},
							{ id: 'what', head: 'What', text: becomes }
						]}
					/>
				</div>
				{#if trial.added + trial.changed + trial.refused > trial.lines.length}<p
						class="text-[12px] text-ink-2"
					>
						The first {trial.lines.length} are shown; those that are refused come first.
					</p>{/if}
				{#if trial.refused}<label class="flex items-center gap-2"
						><input type="checkbox" class="accent-act" bind:checked={leaveOut} />Leave out the {plural(
							trial.refused,
							'line'
						)} that cannot be taken in</label
					>{/if}
			{:else}<p class="text-ink-2">Trying…</p>{/if}
		</Form>
	{/if}
</Dialog>
