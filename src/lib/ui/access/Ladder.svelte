<script lang="ts">
	import { LEVELS, levelLabel, rank, type Level } from '../../core/access/levels';

	/** The levels from Drop to Manage, filled up to the one held. */
	let { level }: { level: Level | null } = $props();
	const filled = (one: Level) =>
		level !== null && level !== 'drop' && one !== 'drop' && rank(one) <= rank(level);
</script>

<div
	role="img"
	aria-label={level ? `${levelLabel(level)}, on the ladder from Drop to Manage` : 'No access'}
	class="flex border border-ink text-center text-[11.5px]"
>
	{#each LEVELS as one (one)}
		<span
			class="flex-auto border-rule px-0.5 py-1 not-last:border-r {one === level
				? 'bg-act font-bold text-on-act'
				: filled(one)
					? 'bg-act-soft font-semibold'
					: 'text-ink-2'}">{levelLabel(one)}</span
		>
	{/each}
</div>
