<script lang="ts">
	import { inField } from '../platform/in-field';
	import { onMount } from 'svelte';
	import type { Sheet } from '../../core/dxf/sheet';
	import { SnapIndex } from '../../core/dxf/snap';
	import Select from '../kit/Select.svelte';
	import { DrawnSheet, GROUNDS, type Ground } from './draw-sheet';
	import { Measure } from './measure.svelte';
	import { isEmpty, leftOutWords } from '../../core/dxf/pages';
	import { readDrawing, type ReadDrawing } from './read-drawing';
	import type { Face, SheetViewer } from './sheet-face';
	import SheetFrame from './SheetFrame.svelte';
	import { prepare, ViewPort } from './view-port.svelte';

	/** Shows a DXF drawing: read in a worker, drawn as vectors at every zoom. */
	let { url, title, failed, layer }: SheetViewer = $props();

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
	/** What is not shown, as words. */
	let leftOut = $state('');
	let ground = $state<Ground>('light');
	let read = $state.raw<ReadDrawing | null>(null);
	/** The model is page 1, the sheets it is laid out on follow. */
	let page = $state(1);
	let measure = $state.raw<Measure | null>(null);

	const abort = new AbortController();
	onMount(() => {
		void (async () => {
			try {
				const response = await fetch(url, { signal: abort.signal });
				if (!response.ok) throw new Error('The drawing could not be fetched.');
				const bytes = await response.arrayBuffer();
				status = 'reading the drawing';
				read = await readDrawing(bytes, abort.signal);
				// A drawing whose model is empty was drawn on its sheet.
				if (isEmpty(read.model) && read.names.length > 1) await toPage(2);
				else ready(read.model);
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
		leftOut = leftOutWords(read);
		status = isEmpty(read) ? 'nothing is drawn here' : '';
		drawn = made;
		measure = null;
		port.fit();
	}
	async function toPage(number: number) {
		if (!read?.names[number - 1]) return;
		page = number;
		status = 'laying out the sheet';
		try {
			const sheet = await read.page(number);
			if (page === number) ready(sheet);
		} catch (error) {
			if (!abort.signal.aborted) failed((error as Error).message);
		}
	}
	const on = $derived(layers.map((l) => l.on));
	/** Places are kept in drawing units. */
	const face: Face | null = $derived.by(() => {
		if (!drawn) return null;
		const [left, , , top] = drawn.sheet.box;
		const index = new SnapIndex(drawn.sheet);
		return {
			port,
			page,
			unit: drawn.sheet.unit,
			lasting: (x, y) => ({ x: left + x, y: top - y }),
			inView: (x, y) => ({ x: x - left, y: top - y }),
			hold(x, y) {
				const found = index.nearest(left + x, top - y, 12 / port.scale, (layer) => on[layer] === true);
				return found && { x: found.x - left, y: top - found.y };
			},
			turnTo: (number) => void toPage(number)
		};
	});

	/** While measuring, a click that is no drag sets a point; dragging still moves the sheet. */
	let pressed: { x: number; y: number } | null = null;
	function place(event: MouseEvent) {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		return [event.clientX - box.left, event.clientY - box.top] as const;
	}
	function pointerMove(event: PointerEvent) {
		measure?.hover(...place(event), port, on);
	}
	function pointerUp(event: PointerEvent) {
		if (!measure || !pressed || event.button) return;
		if (Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > 4) return;
		measure.hover(...place(event), port, on);
		measure.set();
	}
	function measureKeys(event: KeyboardEvent) {
		if (!measure || inField(event)) return;
		if (event.key === 'Enter') measure.end();
		else if (event.key === 'Escape' && measure.points.length) measure.clear();
		else if (event.key === 'Escape') measure = null;
		else return;
		event.preventDefault();
	}

	let frame = 0;
	$effect(() => {
		void [drawn, ground, port.scale, port.x, port.y, port.width, port.height, ...on];
		void [measure?.points, measure?.at, measure?.what, measure?.done];
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
		drawn.draw(context, { x, y, scale, width, height, ratio }, on, ground);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		measure?.draw(context, port);
	}
</script>

<svelte:window onkeydown={measureKeys} />
{#snippet over()}{#if face}{@render layer?.(face)}{/if}{/snippet}
<div class="relative h-full">
	<SheetFrame
		{port}
		bind:canvas
		label={title}
		status={[measure ? measure.says : status, leftOut].filter(Boolean).join('; ')}
		measuring={measure !== null}
		overlay={layer && !measure ? over : undefined}
		onpointerdown={(event) => (pressed = { x: event.clientX, y: event.clientY })}
		onpointermove={pointerMove}
		onpointerup={pointerUp}
		ondblclick={() => measure?.end()}
	>
		{#snippet tools()}<button
				class="button"
				aria-expanded={showLayers}
				onclick={() => (showLayers = !showLayers)}
				>Layers {layers.filter((l) => l.on).length}/{layers.length}</button
			><button class="button" onclick={() => (ground = ground === 'light' ? 'dark' : 'light')}
				>{ground === 'light' ? 'Dark' : 'Light'} ground</button
			>{#if read && read.names.length > 1}<Select
					class="w-auto max-w-[260px]"
					label="What is shown of the drawing"
					choices={read.names.map((name, i) => ({ value: String(i + 1), label: name }))}
					value={String(page)}
					choose={(value) => void toPage(Number(value))}
				/>{/if}{#if drawn && page === 1}<button
					class="button"
					aria-pressed={measure !== null}
					onclick={() => (measure = measure ? null : new Measure(drawn!.sheet))}
					>{measure ? 'End measuring' : 'Measure'}</button
				>{/if}{#if measure}<Select
					class="w-auto max-w-[260px]"
					label="What is measured"
					choices={[
						{ value: 'length', label: 'Distance' },
						{ value: 'area', label: 'Area' }
					]}
					value={measure.what}
					choose={(what) => measure && (measure.what = what)}
				/><button class="button" disabled={!measure.points.length} onclick={() => measure?.clear()}
					>Start anew</button
				>{/if}{/snippet}
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
