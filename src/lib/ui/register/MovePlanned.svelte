<script lang="ts">
	import { untrack } from 'svelte';
	import { restOn, type WorkCalendar } from '../../core/time/working-days';
	import { cupboard } from '../../client/cupboard';
	import DateField from '../kit/DateField.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { dayText, plural } from '../platform/words';
	import type { Stages } from './choices';

	/** Moves planned days, with a reason: by working days, or to a day. */
	let {
		open = $bindable(false),
		project,
		stages,
		deliverables,
		stage: before,
		day: to,
		calendar,
		done
	}: {
		open: boolean;
		project: string;
		stages: Stages;
		deliverables: string[];
		stage: string | null;
		/** The day that a mark was dragged to. */
		day: string | null;
		calendar: WorkCalendar;
		done: () => Promise<void>;
	} = $props();

	let stage = $state(untrack(() => before ?? ''));
	let how = $state<'by' | 'to'>(untrack(() => (to === null ? 'by' : 'to')));
	let by = $state(5);
	let day = $state(untrack(() => to ?? ''));
	let reason = $state('');
	const rest = $derived(how === 'to' && day ? restOn(day, calendar) : null);

	async function move() {
		const { moved } = await cupboard.movePlanned({
			project,
			deliverables,
			stage: stage || null,
			...(how === 'by' ? { by } : { to: day || null }),
			reason
		});
		toast(
			moved
				? `The planned days of ${plural(moved, 'deliverable')} moved.`
				: 'Nothing moved: no day is planned there, or it is met already.'
		);
	}
</script>

<Dialog bind:open title="Move planned days of {plural(deliverables.length, 'deliverable')}">
	<Form act={move} {done} button="Move planned days" cancel={() => (open = false)}>
		<div data-field="stage">
			<label class="label" for="move-stage">Stage</label>
			<Select
				id="move-stage"
				choices={[
					...(how === 'by' ? [{ value: '', label: 'every stage that is not met' }] : []),
					...stages.map(({ key, name }) => ({ value: key, label: name }))
				]}
				bind:value={stage}
			/>
		</div>
		<div class="flex gap-4" role="radiogroup" aria-label="How">
			<label class="flex items-center gap-1.5"
				><input type="radio" class="accent-act" bind:group={how} value="by" />by working days</label
			><label class="flex items-center gap-1.5"
				><input type="radio" class="accent-act" bind:group={how} value="to" />to a day</label
			>
		</div>
		{#if how === 'by'}<Field
				label="Working days"
				name="by"
				type="number"
				min={-1000}
				max={1000}
				step={1}
				bind:value={by}
				hint="earlier with a minus; weekends and holidays of the project do not count"
			/>{:else}<div data-field="to"><DateField label="Planned day" bind:value={day} /></div>
			{#if rest}<p class="text-[12px] text-lock">
					Nobody works on {dayText(day)} ({rest}). It can be planned all the same.
				</p>{/if}{/if}
		<Field label="Why" name="reason" bind:value={reason} lines={2} required />
	</Form>
</Dialog>
