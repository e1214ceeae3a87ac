<script lang="ts">
	import { levelChoices } from './level-choices';
	import Form from '../kit/Form.svelte';
	import { isKnown, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import type { Known } from '../../core/access/invite';
	import { LEVELS, levelLabel, rank, type Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
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

	let who = $state.raw<Picked | null>(null);
	let level = $state<Level>('view');
	const people = $derived(known.filter((k) => k.kind === 'person'));

	async function bringIn() {
		if (!who) return;
		await cupboard.bringIn({
			place,
			under: allowance.grant,
			who: isKnown(who) ? { person: who.id } : { email: who.email },
			level
		});
		toast.success(`${isKnown(who) ? who.name : who.email} is in, and has been told.`);
		who = null;
	}
</script>

<section class="border-t border-rule pt-4">
	<Form act={bringIn} {done} button="Bring in" disabled={!allowance.left || !who} onPage>
		<h2 class="text-[15px]">Bring others in</h2>
		<p class="text-[12px] text-ink-2">
			{plural(allowance.left, 'person', 'people')} left of {allowance.count}, at {levelLabel(allowance.level)} at
			most{allowance.until ? `, until ${dayText(allowance.until)}` : ''}. What they get ends with your grant.
		</p>
		<div class="flex gap-2">
			<div class="min-w-0 flex-1">
				<PersonPicker label="Name or mail address" known={people} newcomers bind:value={who} />
			</div>
			<label class="w-[110px]"
				><span class="label">Level</span><Select
					choices={levelChoices(LEVELS.filter((l) => l !== 'drop' && rank(l) <= rank(allowance.level)))}
					bind:value={level}
				/></label
			>
		</div>
	</Form>
</section>
