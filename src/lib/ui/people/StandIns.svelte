<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import { refresh } from '../platform/refresh';
	import { dayText } from '../platform/words';
	import DateField from '../kit/DateField.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, membersOf, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import { projectDay } from '../platform/project-day';

	/** Who is away, and who decides on releases for them meanwhile. */
	let {
		rows,
		project,
		members,
		me,
		controller
	}: {
		rows: AnswerOf<'standIns'>['rows'];
		project: string;
		members: Parameters<typeof membersOf>[0];
		me: string;
		controller: boolean;
	} = $props();

	let open = $state(false);
	let away = $state.raw<Picked | null>(null);
	let standIn = $state.raw<Picked | null>(null);
	let from = $state('');
	let until = $state('');
	const colleagues = $derived(membersOf(members.filter((one) => !one.outside && !one.blockedAt)));
	const idOf = (one: Picked | null) => (one && isKnown(one) ? one.id : '');
	function begin() {
		away = colleagues.find((one) => one.id === me) ?? null;
		standIn = null;
		[from, until] = [projectDay(), ''];
		open = true;
	}
	async function name() {
		await cupboard.nameStandIn({ project, away: idOf(away), standIn: idOf(standIn), from, until });
		open = false;
		await refresh('cupboard:people');
	}
	async function end(entry: string) {
		if (await attempt(() => cupboard.endStandIn({ project, entry }))) await refresh('cupboard:people');
	}
</script>

<section>
	<h2 class="flex items-center gap-2 border-b border-ink pb-1 text-[14px]">
		Away<button class="link ml-auto text-[12px] font-normal text-ink-2" onclick={begin}
			>{controller ? 'Name a stand-in…' : 'I am away…'}</button
		>
	</h2>
	<ul>
		{#each rows as row (row.id)}<li class="flex items-baseline gap-2 border-b border-rule-2 py-1">
				<span class="min-w-0 flex-1"
					><b class="font-semibold">{row.away.name}</b>
					<span class="text-ink-2">{dayText(row.from)} to {dayText(row.until)};</span>
					{row.standIn.name} <span class="text-ink-2">decides</span></span
				>
				{#if row.mayEnd}<button class="link text-[12px] text-ink-2" onclick={() => end(row.id)}>End</button
					>{/if}
			</li>{:else}<li class="py-2 text-ink-2">
				Nobody. Who is away names a stand-in, who decides on releases for them; the trail names both.
			</li>{/each}
	</ul>
</section>
{#if open}<Dialog bind:open title="Who decides meanwhile?">
		<Form act={name} button="Name stand-in" cancel={() => (open = false)}>
			{#if controller}<PersonPicker label="Away" known={colleagues} bind:value={away} required />{/if}
			<PersonPicker
				label="Stand-in"
				known={colleagues.filter((one) => one.id !== idOf(away))}
				bind:value={standIn}
				required
			/>
			<div class="grid grid-cols-2 gap-3">
				<DateField label="First day" bind:value={from} required />
				<DateField label="Last day" bind:value={until} min={from} required />
			</div>
			<p class="text-[12px] text-ink-2">
				They are asked beside whoever is away, and one of the two decides. Nobody decides twice on one step.
			</p>
		</Form>
	</Dialog>{/if}
