<script lang="ts">
	import { onMount } from 'svelte';
	import type { Sheet } from '../core/dxf/sheet';
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
	/** Strokes of one look together, as one path in drawing units with y downward. */
	interface Batch {
		layer: number;
		colour: number;
		weight: number;
		dash: number[];
		path: Path2D;
	}

	const port = new ViewPort(400);
	let canvas = $state<HTMLCanvasElement>();
	let sheet = $state.raw<Sheet | null>(null);
	let batches: Batch[] = [];
	let layers = $state<Layer[]>([]);
	let showLayers = $state(false);
	let status = $state('opening');

	onMount(() => {
		let worker: Worker | null = null;
		const abort = new AbortController();
		void (async () => {
			try {
				const response = await fetch(url, { signal: abort.signal });
				if (!response.ok) throw new Error();
				const bytes = await response.arrayBuffer();
				status = 'reading the drawing';
				worker = new Worker(new URL('../workers/dxf.worker.ts', import.meta.url), { type: 'module' });
				worker.onmessage = (event: MessageEvent<{ sheet?: Sheet; fault?: string }>) => {
					if (event.data.sheet) ready(event.data.sheet);
					else failed(event.data.fault!);
				};
				worker.onerror = () => failed('The drawing cannot be read.');
				worker.postMessage(bytes, [bytes]);
			} catch {
				if (!abort.signal.aborted) failed('The drawing could not be fetched.');
			}
		})();
		return () => {
			abort.abort();
			worker?.terminate();
		};
	});

	function ready(read: Sheet) {
		const [left, , , top] = read.box;
		const byLook = new Map<string, Batch>();
		for (const s of read.strokes) {
			const key = `${s.layer}|${s.colour}|${s.weight}|${s.dash.join()}`;
			let batch = byLook.get(key);
			if (!batch)
				byLook.set(
					key,
					(batch = { layer: s.layer, colour: s.colour, weight: s.weight, dash: s.dash, path: new Path2D() })
				);
			batch.path.moveTo(s.points[0]! - left, top - s.points[1]!);
			for (let i = 2; i < s.points.length; i += 2)
				batch.path.lineTo(s.points[i]! - left, top - s.points[i + 1]!);
		}
		batches = [...byLook.values()];
		layers = read.layers.map((l, index) => ({ index, name: l.name, on: l.visible }));
		port.sheetWidth = read.box[2] - read.box[0];
		port.sheetHeight = read.box[3] - read.box[1];
		const strange = Object.values(read.unknown).reduce((a, b) => a + b, 0);
		status = [
			read.cut ? 'too large to show whole' : '',
			strange ? `${plural(strange, 'item')} of kinds not shown` : ''
		]
			.filter(Boolean)
			.join(', ');
		sheet = read;
		port.fit();
	}

	let frame = 0;
	$effect(() => {
		void [sheet, port.scale, port.x, port.y, port.width, port.height, ...layers.map((l) => l.on)];
		cancelAnimationFrame(frame);
		frame = requestAnimationFrame(draw);
	});

	const css = (colour: number) => (colour < 0 ? '#17231f' : '#' + colour.toString(16).padStart(6, '0'));

	function draw() {
		if (!canvas || !sheet || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		const k = port.scale * ratio;
		const on = layers.map((l) => l.on);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.fillStyle = '#fff';
		const margin = 10;
		context.fillRect(
			port.x - margin,
			port.y - margin,
			port.sheetWidth * port.scale + 2 * margin,
			port.sheetHeight * port.scale + 2 * margin
		);
		const [left, , , top] = sheet.box;
		for (const f of sheet.fills) {
			if (!on[f.layer]) continue;
			context.setTransform(k, 0, 0, k, port.x * ratio, port.y * ratio);
			context.fillStyle = css(f.colour);
			const path = new Path2D();
			for (const loop of f.loops) {
				path.moveTo(loop[0]! - left, top - loop[1]!);
				for (let i = 2; i < loop.length; i += 2) path.lineTo(loop[i]! - left, top - loop[i + 1]!);
			}
			context.fill(path, 'evenodd');
		}
		context.lineJoin = 'round';
		context.setTransform(k, 0, 0, k, port.x * ratio, port.y * ratio);
		for (const b of batches) {
			if (!on[b.layer]) continue;
			context.strokeStyle = css(b.colour);
			context.lineWidth = Math.max(0.8, b.weight * 3.2) / port.scale;
			context.setLineDash(
				b.dash.some((d) => d * port.scale > 1.5) ? b.dash.map((d) => Math.max(d, 0.5 / port.scale)) : []
			);
			context.stroke(b.path);
		}
		context.setLineDash([]);
		for (const t of sheet.texts) {
			const size = t.height * port.scale * 1.35;
			if (!on[t.layer] || size < 2.5) continue;
			const x = port.x + (t.x - left) * port.scale;
			const y = port.y + (top - t.y) * port.scale;
			if (x < -2000 || y < -200 || x > port.width + 2000 || y > port.height + 200) continue;
			context.setTransform(ratio, 0, 0, ratio, x * ratio, y * ratio);
			context.rotate(-t.turn);
			context.font = `${size}px 'Archivo Variable', sans-serif`;
			context.textAlign = t.alignX === 0 ? 'left' : t.alignX === 1 ? 'right' : 'center';
			context.fillStyle = css(t.colour);
			context.fillText(t.text, 0, t.alignY * t.height * port.scale);
		}
	}
</script>

<div class="relative h-full">
	<SheetFrame {port} bind:canvas label={title} {status}>
		{#snippet tools()}<button
				class="button"
				aria-expanded={showLayers}
				onclick={() => (showLayers = !showLayers)}
				>Layers {layers.filter((l) => l.on).length}/{layers.length}</button
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
