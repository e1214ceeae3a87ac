<script lang="ts">
	import { untrack } from 'svelte';
	import { partOf } from '../../core/register';
	import { headOf } from '../../core/numbering/numbering';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import DateField from '../kit/DateField.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import { toast } from '../kit/toast';
	import type { Stages } from './choices';
	import DepartmentField from './DepartmentField.svelte';

	/** Puts one deliverable after another in the register; what is said of one is kept for the next. */
	let {
		open = $bindable(false),
		project,
		frame,
		stages,
		people,
		number: first = '',
		done
	}: {
		open: boolean;
		project: string;
		frame: AnswerOf<'projectFrame'>;
		stages: Stages;
		people: readonly Pickable[];
		/** The number of the first, where it is known. */
		number?: string;
		done: () => Promise<void>;
	} = $props();

	const rule = $derived(frame.project.numbering);
	const departmentAt = $derived(rule.parts.findIndex((part) => part.key === 'department'));
	let department = $state<string | null>(untrack(() => departmentOf(first)));
	let number = $state(untrack(() => first));
	let title = $state('');
	let weight = $state(1);
	let responsible = $state.raw<Picked | null>(null);
	let planned = $state<Record<string, string>>({});
	let added = $state(0);

	/** The department that a number names. */
	function departmentOf(of: string) {
		const code = partOf(rule, of, 'department');
		return frame.departments.find((one) => one.code === code)?.id ?? null;
	}
	/** The beginning of numbers of a department, for whoever has not begun to type one. */
	function begin() {
		const code = frame.departments.find((one) => one.id === department)?.code;
		if (code && departmentAt >= 0 && (number === '' || number === begun)) {
			begun = headOf(
				{ ...rule, parts: rule.parts.slice(0, departmentAt + 2) },
				{ project: frame.project.code, department: code }
			);
			number = begun;
		}
	}
	let begun = '';
	async function add() {
		await cupboard.addDeliverables({
			project,
			deliverables: [
				{
					number: number.trim(),
					title,
					department,
					responsible: responsible && isKnown(responsible) ? responsible.id : null,
					weight,
					planned: Object.fromEntries(Object.entries(planned).filter(([, day]) => day))
				}
			]
		});
		added++;
	}
	let another = $state(false);
	async function after() {
		if (!another) return done();
		toast(`${number} ${title} is in the register.`);
		// The next of the series most likely.
		number = number.replace(/(\d+)$/, (serial) => String(Number(serial) + 1).padStart(serial.length, '0'));
		title = '';
	}
	async function leave() {
		open = false;
		if (added) await done();
	}
</script>

<Dialog bind:open={() => open, () => void leave()} title="Add a deliverable">
	<Form act={add} done={after} button="Add deliverable" cancel={() => void leave()}>
		<p class="text-ink-2">
			It stands in the register, and its number is kept for it, before its document is there. A whole list is
			quicker by Import a list.
		</p>
		<DepartmentField
			departments={frame.departments}
			bind:value={
				() => department,
				(to) => {
					department = to ?? null;
					begin();
				}
			}
		/>
		<Field label="Number" name="number" bind:value={number} required mono />
		<Field label="Title" name="title" bind:value={title} required />
		<div data-field="responsible">
			<PersonPicker label="Who is responsible" known={people} nobody="nobody yet" bind:value={responsible} />
		</div>
		<fieldset class="space-y-2">
			<legend class="label">Planned days</legend>
			<div class="grid grid-cols-2 gap-2">
				{#each stages as stage (stage.key)}<DateField
						label={stage.name}
						bind:value={() => planned[stage.key] ?? '', (day) => (planned[stage.key] = day)}
					/>{/each}
			</div>
			<p class="text-[12px] text-ink-2">A stage without a day is not in its plan.</p>
		</fieldset>
		<Field
			label="Weight"
			name="weight"
			type="number"
			min={0.01}
			max={1000}
			step="any"
			bind:value={weight}
			hint="how much it counts in the curves; hours, or simply 1"
		/>
		<label class="flex items-center gap-2"
			><input type="checkbox" class="accent-act" bind:checked={another} />Then add another</label
		>
	</Form>
</Dialog>
