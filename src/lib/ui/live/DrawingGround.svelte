<script lang="ts">
	import { inField } from '../platform/in-field';
	import type { Stroke, Text } from '../../core/dxf/sheet';
	import { TOOLS, type DrawTool } from '../../core/drawing/draft';
	import type { XY } from '../../core/drawing/item';
	import { GROUNDS } from '../viewers/draw-sheet';
	import { drawSnap } from '../viewers/measure.svelte';
	import type { Remarks } from '../remarks/remarks.svelte';
	import type { Face } from '../viewers/sheet-face';
	import SheetFrame from '../viewers/SheetFrame.svelte';
	import SheetRemarks from '../remarks/SheetRemarks.svelte';
	import { prepare, ViewPort } from '../viewers/view-port.svelte';
	import { plural } from '../platform/words';
	import { LiveDrawingState } from './drawing.svelte';
	import { colourOf } from './people-look';

	/** The sheet of a live drawing: draws it, and takes the pointer and the keys for choosing, moving and drawing. */
	let {
		drawing,
		writes,
		title,
		label,
		remarks
	}: {
		drawing: LiveDrawingState;
		writes: boolean;
		title: string;
		/** The newest version. */
		label: string;
		remarks: Remarks;
	} = $props();

	const ACT = '#0b6b58';
	/** How near to a point the pointer must come to hold on to it, and how far it may move within a click, in pixels. */
	const REACH = 12;
	const CLICK = 4;
	const WORDS: Record<DrawTool, string> = {
		choose: 'Choose',
		line: 'Line',
		polyline: 'Polyline',
		circle: 'Circle',
		arc: 'Arc',
		text: 'Text',
		block: 'Block'
	};
	const HINTS: Record<DrawTool, string> = {
		choose: 'Click chooses, Shift adds. Drag moves what is chosen; with Shift it chooses in a box.',
		line: 'Two ends. Ends, middles, crossings and perpendiculars hold the pointer.',
		polyline: 'Corner by corner; Enter ends it, the first corner again closes it.',
		circle: 'The middle, then a point of the circle.',
		arc: 'The middle, where it begins, where it ends; counter-clockwise.',
		text: 'Write the words beside, then click where they begin.',
		block: 'Choose the block beside, then click where it goes.'
	};
	const port = new ViewPort(2_000);
	let canvas = $state<HTMLCanvasElement>();
	let fitted = false;
	$effect(() => {
		if (!drawing.base || fitted) return;
		fitted = true;
		port.sheetWidth = drawing.base.width;
		port.sheetHeight = drawing.base.height;
		port.fit();
	});
	const box = $derived(drawing.base?.sheet.box ?? ([0, 0, 1, 1] as const));
	const toDrawing = (x: number, y: number): XY => [
		box[0] + (x - port.x) / port.scale,
		box[3] - (y - port.y) / port.scale
	];
	const toScreen = ([x, y]: XY): [number, number] => [
		port.x + (x - box[0]) * port.scale,
		port.y + (box[3] - y) * port.scale
	];
	const face: Face | null = $derived(
		drawing.base
			? {
					port,
					page: 1,
					unit: drawing.base.sheet.unit,
					lasting: (x, y) => ({ x: box[0] + x, y: box[3] - y }),
					inView: (x, y) => ({ x: x - box[0], y: box[3] - y }),
					turnTo: () => {}
				}
			: null
	);

	/** Where an entity stands now, for the remarks on it. */
	function entityAt(key: string) {
		const thing = drawing.find(key);
		if (!thing) return null;
		const [x, y] = LiveDrawingState.place(thing);
		return { x, y };
	}

	let frame = 0;
	$effect(() => {
		void [drawing.base, drawing.over, drawing.on, drawing.at, drawing.points, drawing.drag, drawing.tool];
		void [port.scale, port.x, port.y, port.width, port.height, boxing, ...drawing.chosen];
		void [drawing.others, drawing.words, drawing.block, drawing.scale, drawing.turn, drawing.height];
		cancelAnimationFrame(frame);
		frame = requestAnimationFrame(draw);
	});
	function draw() {
		const { base, over } = drawing;
		if (!canvas || !base || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		const plain = () => context.setTransform(ratio, 0, 0, ratio, 0, 0);
		plain();
		context.fillStyle = GROUNDS.light.paper;
		context.fillRect(
			port.x - 10,
			port.y - 10,
			port.sheetWidth * port.scale + 20,
			port.sheetHeight * port.scale + 20
		);
		const { x, y, scale, width, height } = port;
		const place = { x, y, scale, width, height, ratio };
		base.draw(context, place, drawing.on);
		over?.drawn.draw(context, place, drawing.on);
		plain();
		for (const other of drawing.others)
			for (const key of other.chosen)
				outline(context, drawing.shapesOf(key), colourOf(other.user.id), [4, 3]);
		for (const key of drawing.chosen) {
			outline(context, drawing.shapesOf(key), ACT, []);
			if (drawing.drag) outline(context, drawing.shapesOf(key), ACT, [5, 4], drawing.drag);
		}
		outline(context, drawing.preview(), ACT, [5, 4]);
		context.fillStyle = ACT;
		for (const point of drawing.points) {
			const [px, py] = toScreen(point);
			context.fillRect(px - 3, py - 3, 6, 6);
		}
		if (drawing.at && drawing.at.kind !== 'free' && (drawing.tool !== 'choose' || drawing.drag))
			drawSnap(context, ...toScreen([drawing.at.x, drawing.at.y]), drawing.at.kind);
		if (boxing) {
			const [a, b] = [toScreen(boxing.from), toScreen(boxing.to)];
			context.strokeStyle = ACT;
			context.setLineDash([4, 3]);
			context.strokeRect(
				Math.min(a[0], b[0]),
				Math.min(a[1], b[1]),
				Math.abs(b[0] - a[0]),
				Math.abs(b[1] - a[1])
			);
			context.setLineDash([]);
		}
	}
	/** Draws shapes once more, as something that is chosen or about to be. */
	function outline(
		context: CanvasRenderingContext2D,
		shapes: { strokes: Stroke[]; texts: Text[] } | undefined,
		colour: string,
		dash: number[],
		[dx, dy]: XY = [0, 0]
	) {
		if (!shapes) return;
		context.strokeStyle = colour;
		context.lineWidth = 2.5;
		context.setLineDash(dash);
		context.beginPath();
		for (const { points } of shapes.strokes) {
			context.moveTo(...toScreen([points[0]! + dx, points[1]! + dy]));
			for (let i = 2; i < points.length; i += 2)
				context.lineTo(...toScreen([points[i]! + dx, points[i + 1]! + dy]));
		}
		context.stroke();
		// What has lines is seen by them.
		if (shapes.strokes.length) return context.setLineDash([]);
		context.lineWidth = 1.5;
		for (const t of shapes.texts) {
			const [x, y] = toScreen([t.x + dx, t.y + dy]);
			const size = t.height * port.scale;
			context.save();
			context.translate(x, y);
			context.rotate(-t.turn);
			context.font = `${size * 1.35}px 'Archivo Variable', sans-serif`;
			const wide = context.measureText(t.text).width * t.wide;
			context.strokeRect(-t.alignX * wide - 3, t.alignY * size - size - 3, wide + 6, size + 6);
			context.restore();
		}
		context.setLineDash([]);
	}

	let pressed: { x: number; y: number; at: XY; key: string | null; moving: boolean } | null = null;
	let boxing = $state.raw<{ from: XY; to: XY } | null>(null);
	function placeOf(event: PointerEvent): XY {
		const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect();
		return [event.clientX - bounds.left, event.clientY - bounds.top];
	}
	function down(event: PointerEvent) {
		if (event.button !== 0) return;
		const [x, y] = placeOf(event);
		drawing.snap(...toDrawing(x, y), REACH / port.scale);
		const key = drawing.tool === 'choose' ? drawing.pick(...toDrawing(x, y), 6 / port.scale) : null;
		const held = key !== null && drawing.chosen.has(key) && drawing.movables.some((t) => t.key === key);
		pressed = { x: event.clientX, y: event.clientY, at: [drawing.at!.x, drawing.at!.y], key, moving: false };
		// Only what is for the drawing stays here; everything else moves the sheet.
		if (drawing.tool === 'choose' && !(held && writes) && !event.shiftKey) return;
		event.stopPropagation();
		(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
		if (drawing.tool === 'choose' && event.shiftKey) boxing = { from: toDrawing(x, y), to: toDrawing(x, y) };
		else if (held) pressed.moving = true;
	}
	function move(event: PointerEvent) {
		const [x, y] = placeOf(event);
		drawing.snap(...toDrawing(x, y), REACH / port.scale);
		if (boxing) boxing = { ...boxing, to: toDrawing(x, y) };
		else if (pressed?.moving && far(event))
			drawing.drag = [drawing.at!.x - pressed.at[0], drawing.at!.y - pressed.at[1]];
	}
	const far = (event: PointerEvent) =>
		pressed !== null && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > CLICK;
	function up(event: PointerEvent) {
		const was = pressed;
		pressed = null;
		if (!was) return;
		const moved = Math.hypot(event.clientX - was.x, event.clientY - was.y) > CLICK;
		if (boxing && moved) drawing.chooseWithin(boxing.from, boxing.to);
		else if (drawing.drag) drawing.moveBy(drawing.drag);
		else if (!moved && drawing.tool === 'choose') drawing.choose(was.key, event.shiftKey);
		else if (!moved) drawing.set([drawing.at!.x, drawing.at!.y]);
		boxing = null;
		drawing.drag = null;
	}
	function keys(event: KeyboardEvent) {
		if (inField(event) || (event.target as HTMLElement).closest('[role=dialog]')) return;
		const ctrl = event.ctrlKey || event.metaKey;
		const act: Record<string, () => void> = {
			Escape: () => {
				if (drawing.points.length) drawing.points = [];
				else if (drawing.tool !== 'choose') drawing.tool = 'choose';
				else drawing.choose(null);
			},
			Enter: () => drawing.finish(),
			Delete: () => drawing.remove(),
			Backspace: () => drawing.remove()
		};
		const withCtrl: Record<string, () => void> = {
			z: () => (event.shiftKey ? drawing.redo() : drawing.undo()),
			y: () => drawing.redo()
		};
		const run = ctrl ? withCtrl[event.key.toLowerCase()] : act[event.key];
		if (!run || (!ctrl && event.key !== 'Escape' && (event.target as HTMLElement).closest('button, a')))
			return;
		event.preventDefault();
		run();
	}
	const says = $derived.by(() => {
		if (!drawing.base) return 'opening';
		const { at } = drawing;
		const figure = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 2 });
		return at ? `${figure(at.x)}, ${figure(at.y)}${at.kind === 'free' ? '' : ` on ${HOLDS[at.kind]}`}` : '';
	});
	const HOLDS = {
		end: 'an end',
		middle: 'a middle',
		crossing: 'a crossing',
		square: 'a perpendicular',
		on: 'a line'
	};
</script>

<!-- A press that moves the sheet ends elsewhere; the window hears of all of them. -->
<svelte:window onkeydown={keys} onpointerup={up} />
<div class="flex h-full flex-col">
	{#if writes}<div
			class="flex flex-wrap items-center gap-1.5 border-b border-rule bg-sheet px-3 py-1"
			role="toolbar"
			aria-label="Draw"
		>
			<div class="flex flex-wrap" role="radiogroup" aria-label="Tool">
				{#each TOOLS as tool (tool)}<button
						role="radio"
						aria-checked={drawing.tool === tool}
						class="button rounded-none {drawing.tool === tool ? '!border-act !bg-act-soft' : ''}"
						onclick={() => ((drawing.tool = tool), (drawing.points = []))}>{WORDS[tool]}</button
					>{/each}
			</div>
			<button class="button" disabled={!drawing.canUndo} onclick={() => drawing.undo()}>Undo</button>
			<button class="button" disabled={!drawing.canRedo} onclick={() => drawing.redo()}>Redo</button>
			{#if drawing.tool === 'polyline' && drawing.points.length > 1}<button
					class="button button-act"
					onclick={() => drawing.finish()}>End with {plural(drawing.points.length, 'corner')}</button
				>{/if}
			<span class="min-w-0 flex-1 truncate text-[12px] text-ink-2 max-md:hidden">{HINTS[drawing.tool]}</span>
		</div>{/if}
	<div class="min-h-0 flex-1">
		<SheetFrame {port} bind:canvas label={title} status={says} overlay={over} />
	</div>
</div>
{#snippet over()}
	<div
		class="absolute inset-0 {drawing.tool === 'choose' ? 'cursor-default' : 'cursor-crosshair'}"
		role="presentation"
		onpointerdown={down}
		onpointermove={move}
		ondblclick={() => drawing.tool === 'polyline' && drawing.finish()}
	></div>
	{#if face}<SheetRemarks {face} {remarks} {label} {entityAt} />{/if}
	{#each drawing.others as other (other.client)}
		{#if other.at}
			{@const [x, y] = toScreen(other.at)}
			<span
				class="pointer-events-none absolute px-1.5 text-[11px] font-semibold text-white"
				style="left:{x}px;top:{y}px;background:{colourOf(other.user.id)}">{other.user.name}</span
			>
		{/if}
	{/each}
{/snippet}
