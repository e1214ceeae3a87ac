<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import DateField from '../kit/DateField.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Empty from '../kit/Empty.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import Table from '../kit/Table.svelte';
	import { NUMBER_COLUMN } from '../kit/table';
	import { toast } from '../kit/toast';
	import { attempt, sentenceOf } from '../platform/api';
	import { projectDay } from '../platform/project-day';
	import { dayText, plural } from '../platform/words';
	import type { Stages } from './choices';
	import DepartmentField from './DepartmentField.svelte';

	/** Adds the deliverables of a template for another piece of work; what would be added is shown as it is chosen. */
	let {
		open = $bindable(false),
		project,
		frame,
		stages,
		people,
		done
	}: {
		open: boolean;
		project: string;
		frame: AnswerOf<'projectFrame'>;
		stages: Stages;
		people: readonly Pickable[];
		done: () => Promise<void>;
	} = $props();

	let templates = $state.raw<AnswerOf<'registerTemplates'>['templates'] | null>(null);
	let template = $state('');
	const load = () =>
		attempt(async () => {
			templates = (await cupboard.registerTemplates({ project })).templates;
			if (!templates.some((one) => one.id === template)) template = templates[0]?.id ?? '';
		});
	onMount(() => void load());
	let department = $state<string | null | undefined>(untrack(() => frame.me.departments[0] ?? null));
	let responsible = $state.raw<Picked | null>(null);
	let begins = $state(projectDay());
	/** Parts of the numbers that can be other than in the template. */
	const free = $derived(
		frame.project.numbering.parts.filter(
			({ key }) => !['project', 'department', 'type', 'serial'].includes(key)
		)
	);
	let parts = $state<Record<string, string>>({});
	const asked = $derived({
		project,
		template,
		department: department ?? null,
		responsible: responsible && isKnown(responsible) ? responsible.id : null,
		parts: Object.fromEntries(Object.entries(parts).filter(([, code]) => code.trim())),
		begins
	});

	type Made = AnswerOf<'addFromTemplate'>['deliverables'];
	let made = $state.raw<Made>([]);
	let fault = $state('');
	/** Milliseconds of quiet after which it is tried. */
	const QUIET = 300;
	$effect(() => {
		const trying = JSON.stringify(asked);
		if (!template || !begins) return void (made = []);
		const timer = setTimeout(() => {
			cupboard.addFromTemplate({ ...(JSON.parse(trying) as typeof asked), trial: true }).then(
				(answer) => {
					if (trying === JSON.stringify(asked)) [made, fault] = [answer.deliverables, ''];
				},
				(error: unknown) => {
					if (trying === JSON.stringify(asked)) [made, fault] = [[], sentenceOf(error)];
				}
			);
		}, QUIET);
		return () => clearTimeout(timer);
	});
	async function add() {
		const { deliverables } = await cupboard.addFromTemplate(asked);
		toast(`${plural(deliverables.length, 'deliverable')} put in the register.`);
	}
	async function end() {
		await attempt(() => cupboard.endTemplate({ project, template }));
		await load();
	}
</script>

<Dialog bind:open title="Add from a template" wide>
	{#if templates?.length === 0}
		<Empty
			>No template is kept yet. Tick deliverables that come again with each piece of work of a kind, and
			choose Keep as a template.</Empty
		>
	{:else if templates}
		<Form
			act={add}
			{done}
			button="Add {plural(made.length, 'deliverable')}"
			disabled={!made.length}
			cancel={() => (open = false)}
		>
			<div class="grid gap-3 md:grid-cols-3">
				<div>
					<label class="label" for="template">Template</label>
					<Select
						id="template"
						choices={templates.map((one) => ({
							value: one.id,
							label: `${one.name} (${one.deliverables})`
						}))}
						bind:value={template}
					/>
				</div>
				<DepartmentField departments={frame.departments} bind:value={department} />
				<div data-field="begins"><DateField label="The work begins" bind:value={begins} required /></div>
				{#each free as part (part.key)}<div>
						<label class="label" for="part-{part.key}">{part.label}</label>
						{#if part.values}<Select
								id="part-{part.key}"
								choices={[
									{ value: '', label: 'as in the template' },
									...part.values.map(({ code, name }) => ({ value: code, label: `${code} ${name}` }))
								]}
								bind:value={() => parts[part.key] ?? '', (code) => (parts[part.key] = code)}
							/>{:else}<input
								id="part-{part.key}"
								class="field font-mono"
								maxlength={8}
								placeholder="as in the template"
								bind:value={() => parts[part.key] ?? '', (code) => (parts[part.key] = code.toUpperCase())}
							/>{/if}
					</div>{/each}
				<PersonPicker
					label="Who is responsible"
					known={people}
					nobody="nobody yet"
					bind:value={responsible}
				/>
			</div>
			{#if fault}<p class="text-fault" role="alert">{fault}</p>{/if}
			<div class="h-[36vh] min-h-[160px] border border-rule">
				<Table
					label="What would be added"
					rows={made}
					key={(row) => row.number}
					empty="Nothing would be added as it is chosen now."
					fills
					columns={[
						NUMBER_COLUMN,
						{ id: 'title', head: 'Title', text: (row: Made[number]) => row.title },
						...stages.map((stage) => ({
							id: stage.key,
							head: stage.name,
							text: (row: Made[number]) => {
								const day = row.planned[stage.key];
								return day ? dayText(day) : day === null ? 'no day yet' : '–';
							},
							class: 'whitespace-nowrap'
						}))
					]}
				/>
			</div>
			{#snippet more()}<button type="button" class="link mr-auto" onclick={end}>End this template</button
				>{/snippet}
		</Form>
	{:else}<p class="text-ink-2">Looking them up…</p>{/if}
</Dialog>
