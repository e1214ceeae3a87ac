<script lang="ts">
	import { SPANS } from '../../core/register';
	import { plusDays } from '../../core/time/days';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Chart from '../kit/Chart.svelte';
	import { attempt } from '../platform/api';
	import { projectDay } from '../platform/project-day';
	import { dayText, plural } from '../platform/words';
	import type { askedFor, Shown, Stages } from './choices';

	/** Figures of what the register shows; choosing one narrows the list to what it counts. */
	let {
		project,
		shown,
		asked,
		again,
		stages,
		departments,
		show
	}: {
		project: string;
		shown: Shown;
		asked: ReturnType<typeof askedFor>;
		/** Another whenever the figures may be others. */
		again: string;
		stages: Stages;
		departments: readonly { code: string; name: string }[];
		show: (change: Partial<Shown>) => void;
	} = $props();

	const today = projectDay();
	let figures = $state.raw<AnswerOf<'registerFigures'> | null>(null);
	const question = $derived(JSON.stringify({ project, ...asked, again }));
	$effect(() => {
		const now = question;
		const input = { project, ...asked };
		void attempt(() => cupboard.registerFigures(input)).then((answer) => {
			// What was asked for meanwhile is newer.
			if (answer && now === question) figures = answer;
		});
	});

	const stageName = $derived(stages.find((one) => one.key === shown.stage)?.name ?? 'All stages');
	const nameOf = (key: string) => stages.find((one) => one.key === key)?.name ?? key;
	const departmentOf = (code: string | null) =>
		departments.find((one) => one.code === code)?.name ?? 'The project’s own';
	const chosenAlone = (code: string | null) => shown.department.length === 1 && shown.department[0] === code;
	const most = $derived(Math.max(1, ...(figures?.departments ?? []).map((one) => one.all)));
	const share = (n: number) => `${((n / most) * 100).toFixed(1)}%`;
	const whole = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 1 });
	const took = (days: number | null) => (days === null ? '–' : plural(days, 'day'));
	const spanWords = [
		...SPANS.map((end, i) => (i === 0 ? `up to ${end}` : `${SPANS[i - 1]! + 1} to ${end}`)),
		`over ${SPANS.at(-1)}`
	];
	const monthWord = (month: string) => dayText(`${month}-01`).split(' ').slice(1).join(' ');
	const weekEnd = (week: string) => plusDays(week, 6);
	const answered = $derived(figures?.verdicts.reduce((n, { A, B, C, D }) => n + A + B + C + D, 0) ?? 0);
	const returned = $derived(figures?.verdicts.reduce((n, { C, D }) => n + C + D, 0) ?? 0);
</script>

<aside
	class="w-[320px] shrink-0 space-y-5 overflow-auto border-l border-rule bg-film px-4 py-3 max-lg:hidden"
	aria-label="Figures"
>
	{#if figures}
		{@const { curves } = figures}
		{#if curves.days.length}<Chart
				title="{stageName}: planned, issued, expected"
				data={{
					kind: 'line',
					labels: curves.days,
					unit: '',
					word: dayText,
					mark: { label: today, word: 'today' },
					series: [
						{ name: 'planned', values: curves.planned, expected: true, colour: '--ink-2' },
						{ name: 'issued', values: curves.actual, colour: '--ink' },
						{ name: 'expected', values: curves.forecast, expected: true, colour: '--lock' }
					]
				}}
				choose={({ label }) => show({ to: label })}
				class="h-[200px]"
			/>
			<p class="text-[12px] text-ink-2">
				{whole(curves.actual.findLast((n) => n !== null) ?? 0)} of {whole(curves.total)} by weight are issued.{curves.unplanned
					? ` ${whole(curves.unplanned)} have no planned day.`
					: ''}
			</p>{/if}
		<section>
			<h2 class="text-[14px]">By department</h2>
			<ul class="mt-1 space-y-1">
				{#each figures.departments as one (one.department)}<li>
						<button
							class="grid min-h-[24px] w-full grid-cols-[30px_1fr_70px] items-center gap-2 text-left hover:bg-act-soft"
							aria-pressed={chosenAlone(one.department)}
							title="Narrow to {departmentOf(one.department)}"
							onclick={() =>
								show({ department: chosenAlone(one.department) || !one.department ? [] : [one.department] })}
							disabled={one.department === null}
							><span
								class="rounded-sm bg-frame px-1 text-center font-mono text-[11px] font-semibold text-on-frame"
								>{one.department ?? '–'}</span
							><svg class="h-[12px] w-full" aria-hidden="true"
								><rect width={share(one.all)} height="12" class="fill-rule-2" /><rect
									width={share(one.met)}
									height="12"
									class="fill-done"
								/><rect x={share(one.met)} width={share(one.late)} height="12" class="fill-fault" /></svg
							><span class="text-right font-mono text-[12px] text-ink-2"
								>{whole(one.met)}/{whole(one.all)}<span class="sr-only">
									issued, {whole(one.late)} late, in {departmentOf(one.department)}</span
								></span
							></button
						>
					</li>{/each}
			</ul>
			<p class="mt-1 text-[12px] text-ink-2">Green is issued, red is late; by weight.</p>
		</section>
		<section>
			<h2 class="text-[14px]">How long things take</h2>
			<table class="mt-1 w-full text-[12px]">
				<thead
					><tr class="border-b border-rule text-ink-2"
						><th class="py-0.5">Working days</th><th class="text-right">usual</th><th class="text-right"
							>longest</th
						></tr
					></thead
				>
				<tbody>
					{#each figures.steps.filter((one) => one.count) as step (step.stage)}<tr
							class="border-b border-rule-2"
							><th class="py-1 font-normal" scope="row"
								><button
									class="min-h-[24px] text-left hover:underline"
									onclick={() => show({ stage: step.stage })}>To {nameOf(step.stage).toLowerCase()}</button
								></th
							><td class="text-right font-mono">{took(step.median)}</td><td class="text-right font-mono"
								>{took(step.longest)}</td
							></tr
						>{/each}
					<tr class="border-b border-rule-2"
						><th class="py-1 font-normal" scope="row">A client’s reply</th><td class="text-right font-mono"
							>{took(figures.replies.median)}</td
						><td class="text-right font-mono">{took(figures.replies.longest)}</td></tr
					>
					<tr class="border-b border-rule-2"
						><th class="py-1 font-normal" scope="row"
							><button
								class="min-h-[24px] text-left hover:underline"
								onclick={() => show({ only: 'returned' })}>Returned C or D</button
							></th
						><td class="text-right font-mono"
							>{answered ? `${Math.round((100 * returned) / answered)} %` : '–'}</td
						><td></td></tr
					>
					<tr
						><th class="py-1 font-normal" scope="row"
							><button
								class="min-h-[24px] text-left hover:underline"
								onclick={() => show({ only: 'with-client' })}>Overdue replies</button
							></th
						><td class="text-right font-mono {figures.overdue ? 'text-fault' : ''}">{figures.overdue}</td><td
						></td></tr
					>
				</tbody>
			</table>
		</section>
		<Chart
			title="What falls due, week by week"
			data={{
				kind: 'bar',
				labels: figures.weeks.map((one) => one.week),
				unit: '',
				word: dayText,
				series: [
					{ name: 'due', values: figures.weeks.map((one) => one.due), colour: '--wait' },
					{
						name: `managed a week lately: ${whole(figures.managed)}`,
						values: figures.weeks.map(() => figures!.managed),
						colour: '--done'
					}
				]
			}}
			choose={({ label }) =>
				show({ from: label === figures!.weeks[0]!.week ? '' : label, to: weekEnd(label) })}
			class="h-[170px]"
		/>
		{#if figures.steps.some((one) => one.count)}<Chart
				title="How long steps took, in working days"
				data={{
					kind: 'bar',
					labels: spanWords,
					unit: '',
					series: figures.steps
						.filter((one) => one.count)
						.map((one) => ({ name: nameOf(one.stage), values: one.spans }))
				}}
				class="h-[180px]"
			/>{/if}
		{#if figures.verdicts.length}<Chart
				title="Verdicts by month"
				data={{
					kind: 'bar',
					stacked: true,
					labels: figures.verdicts.map((one) => one.month),
					word: monthWord,
					unit: '',
					series: [
						{ name: 'A', values: figures.verdicts.map((one) => one.A), colour: '--done' },
						{ name: 'B', values: figures.verdicts.map((one) => one.B), colour: '--wait' },
						{ name: 'C', values: figures.verdicts.map((one) => one.C), colour: '--lock' },
						{ name: 'D', values: figures.verdicts.map((one) => one.D), colour: '--fault' }
					]
				}}
				choose={({ series }) => show({ only: series === 'C' || series === 'D' ? 'returned' : '' })}
				class="h-[160px]"
			/>{/if}
		<p class="text-[12px] text-ink-2">
			Counted in working days of the project. Choose a figure to narrow the list.
		</p>
	{:else}<p class="text-ink-2">Counting…</p>{/if}
</aside>
