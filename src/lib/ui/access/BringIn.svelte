<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { toast } from 'svelte-sonner';
	import type { Known } from '../../core/access/invite';
	import { LEVELS, levelLabel, rank, type Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import { dayText, plural } from '../platform/words';

	/** Brings somebody in under one's own grant, with how many are left and how far they may go (A8). */
	let {
		place,
		allowance,
		known,
		done
	}: {
		place: string;
		allowance: { grant: string; count: number; left: number; level: Level; until: string | null };
		known: Known[];
		done: () => Promise<void>;
	} = $props();

	let who = $state('');
	let level = $state<Level>('view');
	let fault = $state('');
	const people = $derived(known.filter((k) => k.kind === 'person'));

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		const found = people.find((p) => p.name === who.trim() || p.email === who.trim().toLowerCase());
		try {
			await cupboard.bringIn({
				place,
				under: allowance.grant,
				who: found ? { person: found.id } : { email: who.trim() },
				level
			});
			toast.success(`${found?.name ?? who.trim()} is in, and has been told.`);
			who = '';
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<form onsubmit={submit} class="space-y-2 border-t border-rule pt-4">
	<h2 class="text-[15px]">Bring others in</h2>
	<p class="text-[12px] text-ink-2">
		{plural(allowance.left, 'person', 'people')} left of {allowance.count}, at {levelLabel(allowance.level)} at
		most{allowance.until ? `, until ${dayText(allowance.until)}` : ''}. What they get ends with your grant.
	</p>
	<div class="flex gap-2">
		<label class="flex-1"
			><span class="label">Name or mail address</span><input
				class="field"
				list="bring-in-people"
				bind:value={who}
				required
			/></label
		>
		<label class="w-[110px]"
			><span class="label">Level</span><Select
				choices={[
					...LEVELS.filter((l) => l !== 'drop' && rank(l) <= rank(allowance.level)).map((one) => ({
						value: one,
						label: levelLabel(one)
					}))
				]}
				bind:value={level}
			/></label
		>
	</div>
	<datalist id="bring-in-people"
		>{#each people as p (p.id)}<option value={p.name}>{p.email}</option>{/each}</datalist
	>
	{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
	<button class="button button-act" disabled={!allowance.left || !who.trim()}>Bring in</button>
</form>
