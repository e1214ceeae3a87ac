<script lang="ts">
	import { untrack } from 'svelte';
	import { readHolidays, writeHolidays } from '../../core/time/holidays';
	import { plusWorkingDays, WEEKDAYS, type Weekday } from '../../core/time/working-days';
	import type { AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import { projectDay } from '../platform/project-day';
	import { dayText } from '../platform/words';
	import SettingsForm from './SettingsForm.svelte';

	/** The days that a project works on, and how long things last. */
	let { project }: { project: AnswerOf<'projectFrame'>['project'] } = $props();
	let weekend = $state<Weekday[]>(untrack(() => [...project.workCalendar.weekend]));
	let holidays = $state(untrack(() => writeHolidays(project.workCalendar.holidays)));
	let lockLimitDays = $state(untrack(() => project.lockLimitDays));
	let retentionDays = $state(untrack(() => project.retentionDays));
	const today = projectDay();
	const read = $derived(readHolidays(holidays, today));
	const wrong = $derived(
		read.faults.length
			? `Holidays, line ${read.faults[0]}: write a day and what it is called, such as “25 Dec 2026, Christmas Day”.`
			: weekend.length === WEEKDAYS.length
				? 'Somebody has to work on some day.'
				: ''
	);
	const inTen = $derived(wrong ? '' : plusWorkingDays(today, 10, { weekend, holidays: read.holidays }));
</script>

<SettingsForm
	project={project.id}
	title="Days on which nobody works"
	button="Change the working days"
	change={{
		workCalendar: { weekend: WEEKDAYS.filter((day) => weekend.includes(day)), holidays: read.holidays }
	}}
	{wrong}
>
	<p class="text-[12px] text-ink-2">
		Days by which something is due are counted without them, and no lock is proposed to end on one. Times are
		those of {project.timeZone}.
	</p>
	<div class="flex flex-wrap gap-x-4 gap-y-1">
		{#each WEEKDAYS as weekday (weekday)}<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" value={weekday} bind:group={weekend} />{weekday}</label
			>{/each}
	</div>
	<Field
		label="Holidays, one a line: the day and what it is called"
		name="holidays"
		bind:value={holidays}
		placeholder="25 Dec 2026, Christmas Day"
		lines={6}
		maxlength={10_000}
	/>
	{#if inTen}<p class="text-ink-2">In ten working days it is {dayText(inTen)}.</p>{/if}
</SettingsForm>
<SettingsForm
	project={project.id}
	title="How long things last"
	button="Change how long they last"
	change={{ lockLimitDays, retentionDays }}
>
	<div class="grid gap-3 sm:grid-cols-2">
		<Field
			label="Days a lock lasts"
			name="lockLimitDays"
			bind:value={lockLimitDays}
			type="number"
			min={1}
			max={90}
			hint="without an end of its own; then it is stale"
		/>
		<Field
			label="Days to restore"
			name="retentionDays"
			bind:value={retentionDays}
			type="number"
			min={1}
			max={3650}
			hint="for which what is removed can come back"
		/>
	</div>
</SettingsForm>
