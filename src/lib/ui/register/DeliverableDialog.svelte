<script lang="ts">
	import { onMount } from 'svelte';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { ended } from '../../core/words/sentences';
	import { STATUS_LABEL } from '../../core/register';
	import Revision from '../documents/Revision.svelte';
	import DateField from '../kit/DateField.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Menu from '../kit/Menu.svelte';
	import { attempt } from '../platform/api';
	import { onTouched } from '../platform/live.svelte';
	import { projectDay } from '../platform/project-day';
	import { dayText, plural, whenText } from '../platform/words';
	import { BASIS_SAYS, type Asking, type Stages } from './choices';

	/** One deliverable: where each stage stands and why, what holds it up, and what happened to it. */
	let {
		open = $bindable(false),
		project,
		code,
		stages,
		id,
		controller,
		done,
		ask
	}: {
		open: boolean;
		project: string;
		code: string;
		stages: Stages;
		id: string;
		controller: boolean;
		done: () => Promise<void>;
		ask: (what: Asking) => void;
	} = $props();

	type Line = AnswerOf<'deliverable'>;
	let line = $state.raw<Line | null>(null);
	const read = () =>
		attempt(async () => void (line = await cupboard.deliverable({ project, deliverable: id })));
	onMount(() => {
		void read();
		return onTouched(['register', 'documents', 'in-hand', 'releases'], read);
	});
	const nameOf = (key: string) => stages.find((one) => one.key === key)?.name ?? key;

	/** The stage whose forecast, or whose actual day, is being said. */
	let saying = $state<{ what: 'forecast' | 'actual'; stage: string } | null>(null);
	let day = $state('');
	let reason = $state('');
	function begin(what: 'forecast' | 'actual', stage: Line['stages'][number]) {
		saying = { what, stage: stage.stage };
		day = (what === 'forecast' ? stage.forecast : stage.actual) ?? projectDay();
		reason = '';
	}
	async function say(to: string | null) {
		const input = { project, deliverable: line!.id, stage: saying!.stage, day: to, reason };
		await (saying!.what === 'forecast' ? cupboard.setForecast(input) : cupboard.correctActual(input));
	}
	async function said() {
		saying = null;
		await read();
		await done();
	}
	const correctedOf = (stage: string) => line?.corrected.find((one) => one.stage === stage);
	/** What holds the next stage up, and who. */
	const holds = $derived.by(() => {
		if (!line) return '';
		const { document, responsible } = line;
		if (!document) return responsible ? `${responsible.name} is to begin it.` : 'Nobody has begun it yet.';
		if (line.status === 'returned')
			return `${document.reply!.to} sent it back with ${document.reply!.verdict}.`;
		if (document.inHand) return `${document.inHand} has it in hand.`;
		if (line.status === 'with-client')
			return `${document.reply!.to} is to answer by ${dayText(document.reply!.by!)}.`;
		if (line.status === 'done') return 'Every stage is met.';
		return responsible ? `${responsible.name} is responsible.` : 'Nobody has it in hand.';
	});
	const KIND: Record<string, string> = {
		added: 'put it in the register',
		changed: 'changed it',
		moved: 'moved planned days',
		forecast: 'said when it is expected',
		corrected: 'corrected an actual day',
		removed: 'took it out of the register',
		restored: 'put it back'
	};
	/** A day among the values of a change, as people read it. */
	const value = (text: string) => (/^\d{4}-\d\d-\d\d$/.test(text) ? dayText(text) : text || 'nothing');
	const slipText = (slip: number | null) =>
		slip === null
			? ''
			: slip > 0
				? `${plural(slip, 'day')} later`
				: slip < 0
					? `${plural(-slip, 'day')} earlier`
					: 'on time';
</script>

<Dialog bind:open title={line ? `${line.number} ${line.title}` : 'Deliverable'} wide>
	{#if line}
		<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
			{#if line.document}<Revision label={line.document.label} issued={line.document.issued} /><a
					class="link"
					href="/{code}/document/{line.document.id}">Open its document</a
				>{/if}
			<span class="font-semibold">{STATUS_LABEL[line.status]}</span><span class="text-ink-2">{holds}</span>
			<span class="text-ink-2"
				>{[
					line.department,
					line.responsible && `${line.responsible.name} is responsible`,
					`weight ${line.weight}`
				]
					.filter(Boolean)
					.join(' · ')}</span
			>
			{#if controller}<span class="ml-auto"
					><Menu
						label="Actions"
						groups={[
							[
								{
									word: 'Move planned days…',
									act: () => ask({ what: 'move', ids: [line!.id], stage: null, day: null })
								},
								{ word: 'Change…', act: () => ask({ what: 'change', ids: [line!.id] }) }
							],
							[
								{
									word: 'Take out of the register…',
									act: () => ask({ what: 'remove', ids: [line!.id] }),
									dangerous: true
								}
							]
						]}
					/></span
				>{/if}
		</div>
		<table class="w-full bg-sheet" aria-label="Stages">
			<thead class="text-[12px]"
				><tr class="border-y border-ink bg-film"
					><th class="px-2 py-1">Stage</th><th class="px-2">Planned</th><th class="px-2">Issued</th><th
						class="px-2">Expected</th
					><th class="px-2">Slip</th><th class="px-2"><span class="sr-only">What can be done</span></th></tr
				></thead
			>
			<tbody>
				{#each line.stages as stage (stage.stage)}{@const corrected = correctedOf(stage.stage)}<tr
						class="border-b border-rule-2 align-baseline"
					>
						<th class="px-2 py-1.5 font-semibold" scope="row">{nameOf(stage.stage)}</th>
						<td class="px-2 font-mono">{stage.planned ? dayText(stage.planned) : 'no day yet'}</td>
						<td class="px-2"
							><span class="font-mono">{stage.actual ? dayText(stage.actual) : ''}</span>{#if corrected}<span
									class="block text-[12px] text-ink-2">corrected by {corrected.by}: {corrected.reason}</span
								>{/if}</td
						>
						<td class="px-2"
							>{#if stage.forecast}<span class="font-mono">{dayText(stage.forecast)}</span><span
									class="block max-w-[320px] text-[12px] text-ink-2"
									>{#if stage.own}{stage.own.by}: {ended(stage.own.reason)}{stage.rule
											? ` By the rule ${dayText(stage.rule.day)}.`
											: ''}{:else if stage.rule}{BASIS_SAYS[stage.rule.basis]}{/if}</span
								>{/if}</td
						>
						<td class="px-2 whitespace-nowrap {stage.slip && stage.slip > 0 ? 'text-fault' : ''}"
							>{slipText(stage.slip)}</td
						>
						<td class="px-2 text-right whitespace-nowrap"
							>{#if stage.actual === null && line.mayForecast}<button
									class="link"
									onclick={() => begin('forecast', stage)}>Say when it is expected…</button
								>{:else if stage.actual !== null && controller}<button
									class="link"
									onclick={() => begin('actual', stage)}>Correct…</button
								>{/if}</td
						>
					</tr>{:else}<tr><td class="p-3 text-ink-2" colspan="6">No stage is in its plan.</td></tr>{/each}
			</tbody>
		</table>
		{#if saying}{@const { what, stage } = saying}
			<div class="border border-rule p-3">
				<Form
					act={() => say(day)}
					done={said}
					button={what === 'forecast' ? 'Set forecast' : 'Correct the day'}
					cancel={() => (saying = null)}
				>
					<p class="font-semibold">
						{nameOf(stage)}: {what === 'forecast' ? 'when it is expected' : 'when it was issued in truth'}
					</p>
					<div data-field="day"><DateField label="Day" bind:value={day} required /></div>
					<Field label="Why" name="reason" bind:value={reason} lines={2} required />
					{#snippet more()}{#if what === 'forecast' ? line!.stages.find((one) => one.stage === stage)?.own : correctedOf(stage)}<button
								type="button"
								class="button"
								disabled={!reason.trim()}
								onclick={() => void attempt(() => say(null)).then(said)}
								>{what === 'forecast' ? 'Go by the rule again' : 'Go by the trail again'}</button
							>{/if}{/snippet}
				</Form>
			</div>
		{/if}
		<section>
			<h3 class="font-semibold">What happened to it</h3>
			<ul class="mt-1 space-y-1">
				{#each line.history as one, i (i)}<li class="grid grid-cols-[120px_1fr] gap-2">
						<span class="text-ink-2">{whenText(one.at)}</span><span
							>{one.by ?? 'Cupboard'}
							{KIND[one.kind]}{one.reason ? `: ${one.reason}` : ''}{#each one.changes as change, k (k)}<span
									class="block text-[12px] text-ink-2"
									>{change.what}: {value(change.from)} → {value(change.to)}</span
								>{/each}</span
						>
					</li>{/each}
			</ul>
		</section>
	{:else}<p class="text-ink-2">Looking it up…</p>{/if}
</Dialog>
