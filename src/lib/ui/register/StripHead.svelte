<script lang="ts">
	import { shareOf, ticksOf, type Window } from './strip';

	/** The scale above the strips of a register, with today. */
	let { window, today }: { window: Window; today: string } = $props();
	const ticks = $derived(ticksOf(window));
	const percent = (day: string) => `${(shareOf(day, window) * 100).toFixed(2)}%`;
</script>

<svg class="block h-[26px] w-full min-w-[200px] overflow-visible" role="img" aria-label="Time">
	{#each ticks as { day, word } (day)}<line
			x1={percent(day)}
			x2={percent(day)}
			y1="20"
			y2="26"
			class="stroke-rule"
		/><text x={percent(day)} y="17" dx="2" class="fill-ink-2 text-[12px]">{word}</text>{/each}
	{#if today >= window.from && today <= window.to}<line
			x1={percent(today)}
			x2={percent(today)}
			y1="8"
			y2="30"
			class="stroke-act"
		/><text x={percent(today)} y="6" text-anchor="middle" class="fill-act text-[11px] font-bold">today</text
		>{/if}
</svg>
