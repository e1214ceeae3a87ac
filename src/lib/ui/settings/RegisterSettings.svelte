<script lang="ts">
	import { untrack } from 'svelte';
	import { checkStages, MOST_STAGES, type Stage } from '../../core/register/stages';
	import { WEEKDAYS, type Weekday } from '../../core/time/working-days';
	import { PURPOSE_LABEL, PURPOSES } from '../../core/revisions/revisions';
	import type { AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import Select from '../kit/Select.svelte';
	import SettingsForm from './SettingsForm.svelte';

	/** The stages that deliverables of the register pass, in their order. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let stages = $state<Stage[]>(untrack(() => more.stages.map((one) => ({ ...one }))));
	const free = $derived(PURPOSES.filter((purpose) => !stages.some((one) => one.purpose === purpose)));
	function add() {
		const purpose = free[0]!;
		let key: string = purpose;
		for (let n = 2; stages.some((one) => one.key === key); n++) key = `${purpose}-${n}`;
		stages.push({ key, name: PURPOSE_LABEL[purpose], purpose });
	}
	function earlier(at: number) {
		const [one] = stages.splice(at, 1);
		stages.splice(at - 1, 0, one!);
	}
	let weekday = $state<Weekday | ''>(untrack(() => more.registerReport.weekday ?? ''));
	let to = $state(untrack(() => more.registerReport.to.join('\n')));
	const DAYS: Record<Weekday, string> = {
		Mon: 'Mondays',
		Tue: 'Tuesdays',
		Wed: 'Wednesdays',
		Thu: 'Thursdays',
		Fri: 'Fridays',
		Sat: 'Saturdays',
		Sun: 'Sundays'
	};
</script>

<SettingsForm
	project={project.id}
	title="Stages of the register"
	button="Change the stages"
	change={{ stages: stages.map((one) => ({ ...one, name: one.name.trim() })) }}
	wrong={checkStages(stages) ?? ''}
>
	<p class="text-ink-2">
		A stage is met by the first issue for its purpose, in a release or by itself. Each deliverable has planned
		days for some of them.
	</p>
	<ul class="space-y-1.5">
		{#each stages as stage, i (stage.key)}<li class="flex flex-wrap items-center gap-2">
				<input
					class="field !w-[200px]"
					aria-label="Name of stage {i + 1}"
					bind:value={stage.name}
					maxlength={80}
				/>
				<span class="text-ink-2">met by an issue</span>
				<Select
					label="Purpose that meets {stage.name}"
					choices={PURPOSES.map((purpose) => ({
						value: purpose,
						label: PURPOSE_LABEL[purpose].toLowerCase()
					}))}
					bind:value={stage.purpose}
					class="!w-[150px]"
				/>
				{#if i > 0}<button type="button" class="link" onclick={() => earlier(i)}>Earlier</button>{/if}
				<button type="button" class="link" onclick={() => stages.splice(i, 1)} disabled={stages.length === 1}
					>Delete</button
				>
			</li>{/each}
	</ul>
	{#if stages.length < MOST_STAGES}<button type="button" class="button" onclick={add}>Add a stage</button
		>{/if}
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Weekly report"
	button="Change the weekly report"
	change={{
		registerReport: {
			weekday: weekday || null,
			to: to
				.toLowerCase()
				.split(/[\s,;]+/)
				.filter(Boolean)
		}
	}}
>
	<p class="text-ink-2">The register as a PDF on A3, with its curves, by mail in the morning.</p>
	<div>
		<label class="label" for="report-day">It goes out on</label>
		<Select
			id="report-day"
			choices={[{ value: '', label: 'no day' }, ...WEEKDAYS.map((day) => ({ value: day, label: DAYS[day] }))]}
			bind:value={weekday}
			class="max-w-[240px]"
		/>
	</div>
	<Field
		label="To, one address a line"
		name="registerReport"
		bind:value={to}
		lines={4}
		maxlength={6_000}
		hint="They get the whole register, whatever they may look at in Cupboard."
	/>
</SettingsForm>
