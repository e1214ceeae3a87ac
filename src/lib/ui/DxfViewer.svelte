<script lang="ts">
	import { onMount } from 'svelte';
	import type { Sheet } from '../core/dxf/sheet';
	import { DrawnSheet, GROUNDS, type Ground } from './draw-sheet';
	import { readDrawing } from './read-drawing';
	import SheetFrame from './SheetFrame.svelte';
	import { prepare, ViewPort } from './view-port.svelte';
	import { plural } from './words';

	/** Shows a DXF drawing: read in a worker, drawn as vectors at every zoom. */
	let { url, title, failed }: { url: string; title: string; failed: (sentence: string) => void } = $props();

	interface Layer {
		index: number;
		name: string;
		on: boolean;
	}
	const port = new ViewPort(400);
	let canvas = $state<HTMLCanvasElement>();
	let drawn = $state.raw<DrawnSheet | null>(null);
	let layers = $state<Layer[]>([]);
	let showLayers = $state(false);
	let status = $state('opening');
	let ground = $state<Ground>('light');

	onMount(() => {
		const abort = new AbortController();
		void (async () => {
			try {
				const response = await fetch(url, { signal: abort.signal });
				if (!response.ok) throw new Error('The drawing could not be fetched.');
				const bytes = await response.arrayBuffer();
				status = 'reading the drawing';
				ready(await readDrawing(bytes, abort.signal));
			} catch (error) {
				if (!abort.signal.aborted)
					failed(error instanceof TypeError ? 'The drawing could not be fetched.' : (error as Error).message);
			}
		})();
		return () => abort.abort();
	});

	function ready(read: Sheet) {
		const made = new DrawnSheet(read);
		layers = read.layers.map((l, index) => ({ index, name: l.name, on: l.visible }));
		port.sheetWidth = made.width;
		port.sheetHeight = made.height;
		const strange = Object.values(read.unknown).reduce((a, b) => a + b, 0);
		status = [
			read.cut ? 'too large to show whole' : '',
			strange ? `${plural(strange, 'item')} of kinds not shown` : ''
		]
			.filter(Boolean)
			.join(', ');
		drawn = made;
		port.fit();
	}

	let frame = 0;
	$effect(() => {
		void [drawn, ground, port.scale, port.x, port.y, port.width, port.height, ...layers.map((l) => l.on)];
		cancelAnimationFrame(frame);
		frame = requestAnimationFrame(draw);
	});

	function draw() {
		if (!canvas || !drawn || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.fillStyle = GROUNDS[ground].paper;
		const margin = 10;
		context.fillRect(
			port.x - margin,
			port.y - margin,
			port.sheetWidth * port.scale + 2 * margin,
			port.sheetHeight * port.scale + 2 * margin
		);
		const { x, y, scale, width, height } = port;
		drawn.draw(
			context,
			{ x, y, scale, width, height, ratio },
			layers.map((l) => l.on),
			ground
		);
	}
</script>

<div class="relative h-full">
	<SheetFrame {port} bind:canvas label={title} {status}>
		{#snippet tools()}<button
				class="button"
				aria-expanded={showLayers}
				onclick={() => (showLayers = !showLayers)}
				>Layers {layers.filter((l) => l.on).length}/{layers.length}</button
			><button class="button" onclick={() => (ground = ground === 'light' ? 'dark' : 'light')}
				>{ground === 'light' ? 'Dark' : 'Light'} ground</button
			>{/snippet}
	</SheetFrame>
	{#if showLayers}
		<fieldset
			class="absolute top-12 left-3 max-h-[70%] w-[190px] overflow-auto border border-ink bg-sheet px-3 py-2 shadow-lg"
		>
			<legend class="sr-only">Layers</legend>
			{#each layers as layer (layer.index)}<label class="flex items-center gap-2 py-0.5"
					><input type="checkbox" class="accent-act" bind:checked={layer.on} /><span
						class="truncate font-mono text-[12px]">{layer.name}</span
					></label
				>{/each}
		</fieldset>
	{/if}
</div>
