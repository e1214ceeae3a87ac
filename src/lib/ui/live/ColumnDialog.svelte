<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import { untrack } from 'svelte';
	import {
		columnSchema,
		COLUMN_KINDS,
		TOTALS,
		type Column,
		type ColumnFields
	} from '../../core/schedule/column';
	import { Formulas, referencesIn } from '../../core/schedule/formula';
	import { CallError } from '../../client/call';
	import Dialog from '../kit/Dialog.svelte';

	/** Settles what a column holds and demands. */
	let {
		open = $bindable(false),
		column,
		others,
		keep
	}: {
		open: boolean;
		/** The column that is changed, or null for a new one. */
		column: Column | null;
		others: Column[];
		keep: (fields: ColumnFields) => void;
	} = $props();

	const KINDS: Record<(typeof COLUMN_KINDS)[number], string> = {
		text: 'Text',
		number: 'Number',
		date: 'Day',
		choice: 'Choice',
		document: 'Document number',
		formula: 'Worked out'
	};
	const SUMS: Record<(typeof TOTALS)[number], string> = {
		none: 'Nothing',
		sum: 'Sum',
		count: 'How many',
		mean: 'Mean',
		least: 'Least',
		most: 'Most'
	};
	const before = untrack(() =>
		column ? columnSchema.parse({ ...column }) : { ...columnSchema.parse({ name: 'x' }), name: '' }
	);
	let fields = $state<ColumnFields>(before);
	let choices = $state(before.choices.join('\n'));
	let least = $state(before.least === null ? '' : String(before.least));
	let most = $state(before.most === null ? '' : String(before.most));
	const bound = (typed: string) => (typed.trim() === '' ? null : Number(typed.replace(',', '.')));

	const refuse = (sentence: string, field: string) => {
		throw new CallError('invalid', sentence, { field });
	};
	async function submit() {
		const read = columnSchema.safeParse({
			...$state.snapshot(fields),
			choices: choices
				.split('\n')
				.map((c) => c.trim())
				.filter(Boolean),
			least: bound(least),
			most: bound(most)
		});
		if (!read.success) {
			const [issue] = read.error.issues;
			throw new CallError('invalid', issue!.message, { field: issue!.path[0] });
		}
		const same = (name: string) => name.toLowerCase() === read.data.name.toLowerCase();
		if (others.some((c) => same(c.name))) refuse(`There is a column “${read.data.name}” already.`, 'name');
		if (read.data.kind === 'formula') {
			const made: Column = { ...read.data, id: 'new', order: '' };
			const worked = new Formulas([...others, made]).of({ id: 'x', order: '', cells: {} }, made);
			const unreadable =
				'fault' in worked && /read as a formula|no column|leads back|only\.$|function/.test(worked.fault);
			if (!read.data.formula) refuse('Say how it is worked out, such as [Length] * [Count].', 'formula');
			if (unreadable) refuse((worked as { fault: string }).fault, 'formula');
		}
		keep(read.data);
		open = false;
	}
	const speaksOf = $derived(referencesIn(fields.formula));
</script>

<Dialog bind:open title={column ? `Column ${column.name}` : 'New column'}>
	<Form act={submit} button={column ? 'Keep' : 'Add column'} cancel={() => (open = false)}>
		<div class="flex gap-3">
			<label class="block flex-1"
				><span class="label">Name</span><input
					class="field"
					bind:value={fields.name}
					required
					maxlength="80"
				/></label
			>
			<label class="block w-[190px]"
				><span class="label">Holds</span><Select
					choices={COLUMN_KINDS.map((kind) => ({ value: kind, label: KINDS[kind] }))}
					bind:value={fields.kind}
				/></label
			>
		</div>
		{#if fields.kind === 'number' || fields.kind === 'formula'}<label class="block w-[120px]"
				><span class="label">Unit</span><input class="field" bind:value={fields.unit} maxlength="12" /></label
			>{/if}
		{#if fields.kind === 'number'}<div class="flex gap-3">
				<label class="block w-[120px]"
					><span class="label">Least</span><input
						class="field font-mono"
						inputmode="decimal"
						bind:value={least}
					/></label
				><label class="block w-[120px]"
					><span class="label">Most</span><input
						class="field font-mono"
						inputmode="decimal"
						bind:value={most}
					/></label
				>
			</div>{/if}
		{#if fields.kind === 'choice'}<Field
				label="Choices, one a line"
				name="choices"
				bind:value={choices}
				lines={5}
			/>{/if}
		{#if fields.kind === 'text'}<Field
				label="Looks like (A a letter, # a figure, * anything)"
				name="form"
				bind:value={fields.form}
				placeholder="D-###"
				maxlength={80}
				mono
			/>{/if}
		{#if fields.kind === 'formula'}<Field
				label="Worked out of the same row"
				name="formula"
				bind:value={fields.formula}
				placeholder="ROUND([Length] * [Count], 1)"
				maxlength={500}
				mono
			/>
			<p class="text-ink-2">
				Columns stand in brackets: {others
					.filter((c) => !speaksOf.includes(c.name))
					.slice(0, 6)
					.map((c) => `[${c.name}]`)
					.join(' ')}. ROUND, IF, MIN, MAX, ABS, SQRT and the other functions of spreadsheets work.
			</p>{:else}
			<div class="flex flex-wrap gap-4">
				<label class="flex items-center gap-1.5"
					><input type="checkbox" class="accent-act" bind:checked={fields.required} />Must not be empty</label
				><label class="flex items-center gap-1.5"
					><input type="checkbox" class="accent-act" bind:checked={fields.unique} />Never twice the same</label
				>
			</div>{/if}
		<div class="flex gap-3">
			<label class="block w-[150px]"
				><span class="label">Beneath it</span><Select
					choices={TOTALS.map((total) => ({ value: total, label: SUMS[total] }))}
					bind:value={fields.total}
				/></label
			>
			<label class="block w-[120px]"
				><span class="label">Width, pixels</span><input
					class="field font-mono"
					type="number"
					min="40"
					max="800"
					bind:value={fields.width}
				/></label
			>
		</div>
	</Form>
</Dialog>
