<script lang="ts">
	import { toast } from './toast';
	import { onMount } from 'svelte';
	import type { ChartData, drawChart } from './chart';

	/** Figures as a picture, with the same figures as a table: for screen readers, for reading off and for copying. */
	let {
		title,
		data,
		choose,
		class: look = 'h-[240px]'
	}: {
		title: string;
		data: ChartData;
		/** Told which point or bar is pressed. */
		choose?: (at: { label: string; series: string }) => void;
		class?: string;
	} = $props();

	let place = $state<HTMLDivElement>();
	let drawn = $state.raw<ReturnType<typeof drawChart> | null>(null);
	onMount(() => {
		let gone = false;
		const again = () => drawn?.redraw(data);
		const wide = new ResizeObserver(again);
		const dark = new MutationObserver(again);
		void import('./chart').then(({ drawChart }) => {
			if (gone) return;
			drawn = drawChart(place!, data, choose);
			wide.observe(place!);
			dark.observe(document.documentElement, { attributeFilter: ['data-theme'] });
		});
		return () => {
			gone = true;
			wide.disconnect();
			dark.disconnect();
			drawn?.end();
		};
	});
	$effect(() => drawn?.redraw(data));

	const rows = $derived(
		data.labels.map((label, i) => [label, ...data.series.map((one) => String(one.values[i] ?? ''))])
	);
	async function copy() {
		const lines = [['', ...data.series.map((one) => one.name)], ...rows];
		await navigator.clipboard.writeText(lines.map((cells) => cells.join('\t')).join('\n'));
		toast('The figures are copied; they can be pasted into a sheet.');
	}
</script>

<figure class="space-y-1">
	<figcaption class="font-semibold">{title}</figcaption>
	<div class={look} bind:this={place} aria-hidden="true"></div>
	<details class="text-[12px]">
		<summary class="cursor-pointer text-ink-2">The figures as a table</summary>
		<div class="mt-1 max-h-[240px] overflow-auto">
			<table class="w-full bg-sheet" aria-label={title}>
				<thead
					><tr class="border-b border-rule"
						><th class="px-2 py-1"><span class="sr-only">Of</span></th
						>{#each data.series as one (one.name)}<th class="px-2 py-1 text-right">{one.name}</th>{/each}</tr
					></thead
				>
				<tbody
					>{#each rows as [label, ...figures], i (i)}<tr class="border-b border-rule-2"
							><th class="px-2 py-0.5 font-normal" scope="row">{label}</th>{#each figures as figure, k (k)}<td
									class="px-2 py-0.5 text-right font-mono">{figure}</td
								>{/each}</tr
						>{/each}</tbody
				>
			</table>
		</div>
		<button class="button mt-1" onclick={copy}>Copy figures</button>
	</details>
</figure>
