<script lang="ts">
	import { levelChoices } from './level-choices';
	import DateField from '../kit/DateField.svelte';
	import Select from '../kit/Select.svelte';
	import { untrack } from 'svelte';
	import { LEVELS, rank, type Level } from '../../core/access/levels';
	import type { AccessRow } from '../../core/access/rows';
	import { dayOf } from '../../core/time/days';
	import { projectZone } from '../platform/project-day';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';

	/** Changes one grant where it stands: level, last day, whether it decides alone, whether its holder brings others in. */
	let {
		row = $bindable(null),
		place,
		levels = LEVELS,
		done
	}: {
		row: AccessRow | null;
		place: string;
		/** Levels that mean something here. */
		levels?: readonly Level[];
		done: () => Promise<void>;
	} = $props();

	const before = untrack(() => row!);
	let level = $state(before.level);
	let until = $state(before.until ? dayOf(before.until, projectZone()) : '');
	let exactly = $state(before.exactly);
	let bringCount = $state(before.bringCount);
	let bringLevel = $state<Level>(before.bringLevel ?? 'view');

	async function change() {
		await cupboard.changeAccess({
			place,
			grant: row!.grant!,
			level,
			until: until || null,
			exactly,
			bringCount: level === 'barred' ? 0 : bringCount,
			bringLevel: bringCount ? bringLevel : null
		});
		row = null;
		await done();
	}
</script>

<Dialog bind:open={() => row !== null, (open) => !open && (row = null)} title="Access of {row?.name ?? ''}">
	<Form act={change} button="Change" cancel={() => (row = null)}>
		<div class="flex gap-3">
			<label class="flex-1"
				><span class="label">May</span><Select
					choices={levelChoices([...levels, 'barred'])}
					bind:value={level}
				/></label
			>
			<DateField class="flex-1" label="Until, if it ends" bind:value={until} />
		</div>
		{#if row?.kind === 'person'}<label class="flex items-start gap-2"
				><input type="checkbox" class="mt-1 accent-act" bind:checked={exactly} /><span
					>Exactly this level, whatever departments and groups would give</span
				></label
			>{/if}
		{#if level !== 'barred' && level !== 'drop' && row?.kind !== 'everyone'}
			<fieldset class="flex flex-wrap items-end gap-3 border-t border-rule pt-3">
				<legend class="sr-only">Bringing others in</legend>
				<label class="w-[150px]"
					><span class="label">May bring in others, up to</span><input
						class="field"
						type="number"
						min="0"
						max="500"
						bind:value={bringCount}
					/></label
				>
				<label class="w-[150px]"
					><span class="label">at this level at most</span><Select
						choices={levelChoices(LEVELS.filter((l) => l !== 'drop' && rank(l) <= rank(level as Level)))}
						bind:value={bringLevel}
						disabled={!bringCount}
					/></label
				>
				<p class="w-full text-[12px] text-ink-2">
					What they get hangs on this grant: when it ends, theirs ends.
				</p>
			</fieldset>
		{/if}
	</Form>
</Dialog>
