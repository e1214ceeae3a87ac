<script lang="ts">
	import type { Explanation } from '../../core/access/explain';
	import { levelLabel, type Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Ladder from './Ladder.svelte';

	/** Why a person has the level they have here: what was considered, what decided, what caps it, what would change it. */
	let {
		place,
		person,
		version,
		end
	}: { place: string; person: string; version: number; end: ((grant: string, name: string) => void) | null } =
		$props();

	type Answer = Explanation & { person: { name: string; outside: boolean }; own: string | null };
	let answer = $state<Answer | null>(null);
	$effect(() => {
		void version;
		const asked = person;
		void attempt(async () => {
			const got = await cupboard.why({ place, person: asked });
			if (asked === person) answer = got;
		});
	});
	const VERB: Record<Level, string> = {
		drop: 'only put files in',
		view: 'view',
		download: 'download',
		remark: 'remark',
		work: 'work',
		organise: 'organise',
		manage: 'manage'
	};
</script>

{#if answer}
	<section aria-live="polite" class="space-y-2.5 border-t border-rule pt-4">
		<h2 class="text-[15px]">
			{answer.level
				? `Why can ${answer.person.name} ${VERB[answer.level]} here?`
				: `Why can ${answer.person.name} not get in here?`}
		</h2>
		<Ladder level={answer.level} />
		<div class="space-y-1.5 border-l-4 border-act bg-act-soft px-3 py-2">
			{#each answer.reasons as reason, i (i)}<p>
					{#if i === 0 && answer.held && reason.startsWith(levelLabel(answer.held))}<b
							>{levelLabel(answer.held)}</b
						>{reason.slice(levelLabel(answer.held).length)}{:else}{reason}{/if}
				</p>{/each}
			{#each answer.caps as cap, i (i)}<p>{cap}</p>{/each}
		</div>
		{#each answer.changes as change, i (i)}<p class="text-[12px] text-ink-2">{change}</p>{/each}
		{#if end && answer.own}
			{@const own = answer.own}
			<button class="button" onclick={() => end(own, answer!.person.name)}>End this grant…</button>
		{/if}
	</section>
{/if}
