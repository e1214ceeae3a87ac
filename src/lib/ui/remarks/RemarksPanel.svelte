<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { isOverdue, remarkPieces, type Mention, type RemarkRow } from '../../core/remarks/remarks';
	import { attempt } from '../platform/api';
	import Form from '../kit/Form.svelte';
	import AssignRemark from './AssignRemark.svelte';
	import RemarkField from './RemarkField.svelte';
	import type { Assigned, Remarks } from './remarks.svelte';
	import { dayText, whenText } from '../platform/words';
	import { projectDay } from '../platform/project-day';

	/** The remarks on a document beside it, and the one that is being written. */
	let {
		remarks,
		label,
		newest,
		titled = true,
		table,
		gone = () => false,
		compose
	}: {
		remarks: Remarks;
		/** The version that is looked at. */
		label: string;
		newest: boolean;
		/** Whether it says that it is the remarks. */
		titled?: boolean;
		/** Address of the table of all remarks. */
		table: string;
		/** Whether the passage of a remark is not there any more. */
		gone?: (remark: RemarkRow) => boolean;
		/** Begins a remark on a place or passage; says why when it cannot. */
		compose: { label: string; run: () => void } | null;
	} = $props();

	let shows = $state<'open' | 'settled' | 'all'>('open');
	let text = $state('');
	let mentions = $state<Mention[]>([]);
	let assigned = $state<Assigned>({});
	let answering = $state<number | null>(null);
	let settling = $state<number | null>(null);
	let giving = $state<number | null>(null);
	let answer = $state('');
	let answerMentions = $state<Mention[]>([]);
	const rows = $derived(
		remarks.rows.filter((r) => shows === 'all' || (shows === 'settled') === (r.settled !== null)).toReversed()
	);
	const settled = $derived(remarks.rows.length - remarks.open.length);
	const today = projectDay();

	const ABOUT: Record<string, string> = {
		whole: 'On the whole document',
		version: 'On this version',
		place: 'On the place you chose',
		passage: 'On the words you selected',
		cell: 'On the cell you chose',
		entity: 'On what you chose in the drawing'
	};

	async function add() {
		await remarks.add(text, mentions, label, assigned);
		[text, mentions, assigned] = ['', [], {}];
	}
	async function say(number: number) {
		await (settling === number
			? remarks.settle(number, answer)
			: remarks.answer(number, answer, answerMentions));
		[answer, answerMentions, answering, settling] = ['', [], null, null];
	}
	async function give(number: number) {
		await remarks.assign(number, assigned);
		[giving, assigned] = [null, {}];
	}
	/** The panel follows what was chosen on the sheet. */
	$effect(() => {
		const { chosen } = remarks;
		if (chosen !== null) document.getElementById(`remark-${chosen}`)?.scrollIntoView({ block: 'nearest' });
	});
</script>

<section aria-label="Remarks" class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-2 px-3 py-2">
		{#if titled}<h2 class="text-[15px]">Remarks</h2>{/if}
		<span class="text-[12px] text-ink-2">{remarks.open.length} open · {settled} settled</span>
		<Select
			label="Which remarks"
			choices={[
				{ value: 'open', label: 'Open' },
				{ value: 'settled', label: 'Settled' },
				{ value: 'all', label: 'All' }
			]}
			bind:value={shows}
			class="ml-auto w-auto"
		/>
		<a class="link" href={table}>As a table</a>
	</div>
	{#if remarks.mayRemark && !remarks.draft}<div class="flex flex-wrap gap-1.5 px-3 pb-2">
			{#if compose}<button
					class="button"
					aria-pressed={remarks.picking}
					onmousedown={(event) => event.preventDefault()}
					onclick={compose.run}>{remarks.picking ? 'Click the place…' : compose.label}</button
				>{/if}
			<button class="button" onclick={() => remarks.begin({ on: newest ? 'whole' : 'version' })}
				>{newest ? 'On the whole' : 'On this version'}</button
			>
		</div>{/if}
	{#if remarks.draft}<div class="mx-3 mb-2 border border-ink bg-sheet p-2.5">
			<Form act={add} button="Remark" cancel={() => (remarks.draft = null)} disabled={!text.trim()}>
				<p class="text-[12px] text-ink-2">
					{ABOUT[remarks.draft.anchor.on]}{remarks.draft.quote
						? `: “${remarks.draft.quote.slice(0, 80)}”`
						: ''}
				</p>
				<RemarkField document={remarks.document} label="Remark" bind:text bind:mentions autofocus />
				<AssignRemark document={remarks.document} bind:assigned />
			</Form>
		</div>{/if}
	<ol class="min-h-0 flex-1 space-y-2 overflow-auto px-3 pb-3">
		{#each rows as row (row.id)}
			<li
				id="remark-{row.number}"
				class="border-l-4 bg-sheet px-2.5 py-2 {row.settled
					? 'border-done'
					: isOverdue(row, today)
						? 'border-fault'
						: 'border-lock'} {remarks.chosen === row.number ? 'outline-2 outline-act' : ''}"
			>
				<button
					class="flex w-full flex-wrap items-baseline gap-x-1.5 text-left"
					onclick={() => (remarks.chosen = row.number)}
				>
					<span class="rounded-full bg-ink px-2 font-mono text-[12px] font-semibold text-sheet"
						>{row.number}</span
					>
					<b class="font-semibold">{row.by}</b>
					<span class="text-[12px] text-ink-2">{row.from} · {whenText(row.at)} · {row.label}</span>
				</button>
				{#if row.quote}<p class="mt-1 border-l-2 border-rule pl-2 text-[12px] text-ink-2">
						“{row.quote.slice(0, 160)}”
					</p>{/if}
				{#if gone(row)}<p class="mt-1 text-[12px] text-fault">
						The words it is about are not there any more.
					</p>{/if}
				<p class="mt-1 break-words whitespace-pre-wrap">
					{#each remarkPieces(row.text) as piece, i (i)}{#if piece.mention}<b class="font-semibold text-act"
								>{piece.text}</b
							>{:else}{piece.text}{/if}{/each}
				</p>
				{#if row.assigned}<p
						class="mt-1 text-[12px] {isOverdue(row, today) ? 'font-semibold text-fault' : 'text-ink-2'}"
					>
						{row.assigned.name} settles it{row.due ? ` by ${dayText(row.due)}` : ''}{isOverdue(row, today)
							? ', overdue'
							: ''}
					</p>{/if}
				{#each row.answers as one, i (i)}<div class="mt-1.5 border-t border-rule-2 pt-1.5">
						<b class="font-semibold">{one.by}</b>
						<span class="text-[12px] text-ink-2">{whenText(one.at)}</span>
						<p class="break-words whitespace-pre-wrap">
							{#each remarkPieces(one.text) as piece, k (k)}{#if piece.mention}<b
										class="font-semibold text-act">{piece.text}</b
									>{:else}{piece.text}{/if}{/each}
						</p>
					</div>{/each}
				{#if row.settled}<p class="mt-1.5 border-t border-rule-2 pt-1.5 text-[12px] text-done">
						settled by {row.settled.by}, {whenText(row.settled.at)}{row.settled.note
							? `: ${row.settled.note}`
							: ''}
					</p>{/if}
				{#if answering === row.number || settling === row.number}<div class="mt-2">
						<Form
							act={() => say(row.number)}
							button={settling === row.number ? 'Settle' : 'Answer'}
							cancel={() => ([answering, settling] = [null, null])}
							disabled={answering === row.number && !answer.trim()}
						>
							<RemarkField
								document={remarks.document}
								label={settling === row.number ? 'How it was settled' : 'Answer'}
								bind:text={answer}
								bind:mentions={answerMentions}
								autofocus
							/>
						</Form>
					</div>
				{:else if giving === row.number}<div class="mt-2">
						<Form
							act={() => give(row.number)}
							button="Give"
							cancel={() => (giving = null)}
							disabled={!assigned.assign}
						>
							<AssignRemark document={remarks.document} bind:assigned needed />
						</Form>
					</div>
				{:else if remarks.mayRemark}<p class="mt-1.5 flex flex-wrap gap-1.5">
						{#if row.can.answerRemark.may}<button
								class="button"
								onclick={() => ([answering, settling] = [row.number, null])}>Answer</button
							>{/if}
						{#if row.can.reopenRemark.may}<button
								class="button"
								onclick={() => void attempt(() => remarks.reopen(row.number))}>Open again</button
							>{/if}
						{#if row.can.settleRemark.may}<button
								class="button"
								onclick={() => ([settling, answering] = [row.number, null])}>Settle…</button
							>{/if}
						{#if row.can.assignRemark.may}<button class="button" onclick={() => (giving = row.number)}
								>Give to…</button
							>{/if}
					</p>{/if}
			</li>
		{:else}<li class="py-2 text-ink-2">
				{shows === 'open' ? 'No open remarks.' : 'None.'}
				{remarks.mayRemark ? '' : 'Remarking needs Remark here.'}
			</li>{/each}
	</ol>
</section>
