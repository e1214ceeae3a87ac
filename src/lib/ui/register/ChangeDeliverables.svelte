<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { plural } from '../platform/words';
	import type { Stages } from './choices';
	import DepartmentField from './DepartmentField.svelte';

	/** Changes deliverables, one or many alike; what is left as it stands here stays as it is in each. */
	let {
		open = $bindable(false),
		project,
		frame,
		stages,
		people,
		deliverables,
		done
	}: {
		open: boolean;
		project: string;
		frame: AnswerOf<'projectFrame'>;
		stages: Stages;
		people: readonly Pickable[];
		deliverables: string[];
		done: () => Promise<void>;
	} = $props();

	const one = $derived(deliverables.length === 1);
	let number = $state('');
	let title = $state('');
	let department = $state<string | null | undefined>();
	let weight = $state<number | null>(null);
	let responsible = $state.raw<Picked | null>(null);
	let nobody = $state(false);
	let plans = $state<Record<string, 'add' | 'drop'>>({});
	const listed = (what: 'add' | 'drop') =>
		Object.entries(plans).flatMap(([key, how]) => (how === what ? [key] : []));

	async function change() {
		const { changed } = await cupboard.changeDeliverables({
			project,
			deliverables,
			...(one && number.trim() ? { number: number.trim() } : {}),
			...(title.trim() ? { title } : {}),
			...(department === undefined ? {} : { department }),
			...(nobody
				? { responsible: null }
				: responsible && isKnown(responsible)
					? { responsible: responsible.id }
					: {}),
			...(weight === null ? {} : { weight }),
			addStages: listed('add'),
			dropStages: listed('drop')
		});
		toast(changed ? `${plural(changed, 'deliverable')} changed.` : 'Nothing was to be changed.');
	}
</script>

<Dialog bind:open title="Change {plural(deliverables.length, 'deliverable')}">
	<Form act={change} {done} button="Change" cancel={() => (open = false)}>
		<p class="text-ink-2">What you leave as it is here stays as it is.</p>
		{#if one}<Field label="Number" name="number" bind:value={number} mono placeholder="stays" />
			<Field label="Title" name="title" bind:value={title} placeholder="stays" />{/if}
		<DepartmentField departments={frame.departments} stays bind:value={department} />
		<div data-field="responsible">
			<PersonPicker
				label="Who is responsible"
				known={people}
				bind:value={responsible}
				placeholder="stays as it is"
			/>
			<label class="mt-1 flex items-center gap-2"
				><input type="checkbox" class="accent-act" bind:checked={nobody} />Nobody any more</label
			>
		</div>
		<Field
			label="Weight"
			name="weight"
			type="number"
			min={0.01}
			max={1000}
			step="any"
			bind:value={weight}
			placeholder="stays"
		/>
		<fieldset>
			<legend class="label">Stages in the plan</legend>
			{#each stages as stage (stage.key)}<div class="mt-1 flex items-center gap-2">
					<span class="w-[140px]">{stage.name}</span><Select
						label={stage.name}
						choices={[
							{ value: '', label: 'stays as it is' },
							{ value: 'add', label: 'joins the plan, without a day' },
							{ value: 'drop', label: 'leaves the plan' }
						]}
						value={plans[stage.key] ?? ''}
						choose={(how) => {
							if (how === 'add' || how === 'drop') plans[stage.key] = how;
							else delete plans[stage.key];
						}}
					/>
				</div>{/each}
		</fieldset>
	</Form>
</Dialog>
