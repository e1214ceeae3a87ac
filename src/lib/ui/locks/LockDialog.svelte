<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { momentOf, timeOf } from '../../core/time/days';
	import { nextWorkingDay } from '../../core/time/working-days';
	import DateTimeField from '../kit/DateTimeField.svelte';
	import { projectDay, projectZone } from '../platform/project-day';
	import { plural } from '../platform/words';

	/** Takes documents in hand, with a purpose and an expected end; or says anew until when one is kept. */
	let {
		open = $bindable(false),
		documents,
		project,
		name,
		extends: extending = null,
		done
	}: {
		open: boolean;
		documents: string[];
		project: string;
		/** A number, or how many documents. */
		name: string;
		extends?: { purpose: string } | null;
		done: () => void;
	} = $props();
	let purpose = $state(untrack(() => extending?.purpose ?? ''));
	let day = $state(suggestedDay());
	let time = $state('17:00');
	/** How many of several nobody has, when the others are in somebody's hand. */
	let free = $state(0);

	/** The end of this working day, or of the next one in the evening and when nobody works today. */
	function suggestedDay(): string {
		const evening = timeOf(new Date(), projectZone()) >= '16:00';
		return nextWorkingDay(projectDay(evening ? 1 : 0), page.data.frame.project.workCalendar);
	}

	/** Whether those that are free are to be locked, and the others left. */
	let resting = false;
	async function take(rest = false) {
		free = 0;
		resting = false;
		const expectedEnd = day ? momentOf(day, time, projectZone()).toISOString() : null;
		const what = { purpose, expectedEnd };
		if (extending) await cupboard.extendLock({ document: documents[0]!, purpose, expectedEnd: expectedEnd! });
		else if (documents.length === 1) await cupboard.takeLock({ document: documents[0]!, ...what });
		else {
			const { locked, left } = await cupboard.takeLocks({ project, documents, rest, ...what });
			if (left.length)
				toast(
					`${plural(locked, 'document')} locked; left with whoever has them: ${left.map((l) => `${l.number} (${l.holder})`).join(', ')}.`
				);
		}
		open = false;
		done();
	}
	function refused(error: unknown) {
		if (error instanceof CallError && error.code === 'in-hand') free = Number(error.facts.free ?? 0);
	}
</script>

<Dialog bind:open title="{extending ? 'Keep' : 'Lock'} {name}">
	<Form
		act={() => take(resting)}
		{refused}
		button={extending ? 'Keep it until then' : 'Lock'}
		cancel={() => (open = false)}
	>
		<p class="text-ink-2">
			{documents.length > 1 ? 'All of them are locked, or none. ' : ''}While you have {documents.length > 1
				? 'them'
				: 'it'} in hand, everybody else sees the last version and that you have {documents.length > 1
				? 'them'
				: 'it'}. They can look, but not hand in.
		</p>
		<Field
			label="What for"
			name="purpose"
			bind:value={purpose}
			maxlength={200}
			placeholder="pit wall setting out"
		/>
		<DateTimeField
			label="Expected end"
			bind:day
			bind:time
			zone={projectZone()}
			required={extending !== null}
		/>
		{#snippet more()}{#if free}<button class="button" onclick={() => (resting = true)}
					>Lock the other {free}</button
				>{/if}{/snippet}
	</Form>
</Dialog>
