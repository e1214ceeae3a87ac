<script lang="ts">
	import { levelChoices } from './level-choices';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { LEVELS, levelLabel, type Level } from '../../core/access/levels';
	import type { AccessRow } from '../../core/access/rows';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import { effectText } from './effect-text';

	/**
	 * The level of one grant. Choosing another only proposes it, with what it would mean; a button does it, and it can be
	 * taken back (A13).
	 */
	let {
		row,
		place,
		levels = LEVELS,
		done
	}: {
		row: AccessRow;
		place: string;
		/** Levels that mean something here. */
		levels?: readonly Level[];
		done: () => Promise<void>;
	} = $props();

	const standing = $derived(row.level);
	let chosen = $derived(standing);
	let meaning = $state('');
	let busy = $state(false);

	$effect(() => {
		const [level, from] = [chosen, standing];
		meaning = '';
		if (level === from) return;
		cupboard.effectOfChange({ place, grant: row.grant!, level }).then(
			(effect) => level === chosen && (meaning = effectText(effect)),
			() => level === chosen && (meaning = 'What it would mean cannot be told at the moment.')
		);
	});

	async function change() {
		const before = {
			level: row.level,
			exactly: row.exactly,
			bringCount: row.bringCount,
			bringLevel: row.bringLevel
		};
		const [from, to, name, grant] = [standing, chosen, row.name, row.grant];
		busy = true;
		const answer = await attempt(() => cupboard.changeAccess({ place, grant: grant!, level: to }));
		busy = false;
		if (!answer) return;
		toast.success(`${name}: ${levelLabel(from)} became ${levelLabel(to)}.`, {
			takeBack: () =>
				void attempt(() => cupboard.changeAccess({ place, grant: grant!, ...before })).then(done)
		});
		await done();
	}
</script>

<Select
	label="Level of {row.name}"
	choices={levelChoices([...levels, 'barred'])}
	bind:value={chosen}
	class="rounded-sm border border-rule bg-sheet py-0.5 pr-1 pl-1.5 font-semibold {chosen === 'barred'
		? 'text-fault'
		: ''}"
/>
{#if chosen !== standing}
	<div class="mt-1 max-w-[300px] space-y-1 border-l-4 border-wait bg-wait-soft px-2 py-1 whitespace-normal">
		<p role="status" class="text-[12px]">
			<b class="font-semibold">{levelLabel(standing)} → {levelLabel(chosen)}.</b>
			{meaning || 'Working out what it means…'}
		</p>
		<p class="flex gap-1.5">
			<button class="button button-act" disabled={busy || !meaning} onclick={change}
				>Change to {levelLabel(chosen)}</button
			><button class="button" disabled={busy} onclick={() => (chosen = standing)}>Leave as it is</button>
		</p>
	</div>
{/if}
