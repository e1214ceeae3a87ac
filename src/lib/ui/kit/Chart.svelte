<script lang="ts">
	import { saveFile } from '../platform/save-file';
	import Menu from './Menu.svelte';
	import { pngOf } from './picture';
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
	async function saveCsv() {
		const { default: Papa } = await import('papaparse');
		const lines = [['', ...data.series.map((one) => one.name)], ...rows];
		saveFile('\ufeff' + Papa.unparse(lines, { escapeFormulae: true }), named('csv'), 'text/csv');
	}
	const named = (ending: string) => `${title.replace(/[\\/:*?"<>|]/g, '-')}.${ending}`;
	async function savePng() {
		const png = await pngOf(
			new Blob([drawn!.svg()], { type: 'image/svg+xml' }),
			place!.clientWidth,
			place!.clientHeight
		);
		if (png) saveFile(png, named('png'), 'image/png');
		else toast.error('The picture could not be made.');
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
		<span class="mt-1 flex gap-2"
			><button class="button" onclick={copy}>Copy figures</button><Menu
				label="Export"
				groups={[
					[
						{
							word: 'SVG',
							act: () => saveFile(drawn!.svg(), named('svg'), 'image/svg+xml'),
							disabled: !drawn
						},
						{ word: 'PNG', act: () => void savePng(), disabled: !drawn },
						{ word: 'CSV', act: () => void saveCsv() }
					]
				]}
			/></span
		>
	</details>
</figure>
