<script lang="ts">
	import { inField } from '../platform/in-field';
	import { untrack } from 'svelte';
	import { POINT_BY_POINT, type Mark, type MarkKind, type Point } from '../../core/markup/mark';
	import { boxOf, fitted, lengthOf, SHOWS_WORDS } from '../../core/markup/shape';
	import { colourOf } from '../live/people-look';
	import type { Face } from '../viewers/sheet-face';
	import { lookOf } from '../../core/markup/look';
	import type { Markup } from './markup.svelte';
	import MarkShape from './MarkShape.svelte';
	import MarkWords from './MarkWords.svelte';

	/** Marks over a sheet, and the pointer that chooses, moves and draws them. */
	let {
		face,
		markup,
		codes,
		editing,
		saysScale
	}: {
		face: Face;
		markup: Markup;
		/** Codes of the project's departments, in their order. */
		codes: string[];
		/** The pointer is for marks; otherwise it moves the sheet. */
		editing: boolean;
		/** A way on the sheet was drawn whose real length is asked for. */
		saysScale?: (page: number, length: number) => void;
	} = $props();

	/** Width of a line and height of letters, so that both fit the sheet whatever its units are. */
	const line = $derived(Math.max(face.port.sheetWidth, face.port.sheetHeight) / 460);
	const letters = $derived(line * 5.5);
	const shown = $derived(markup.onPage(face.page));
	const drafted = $derived(markup.draft?.page === face.page ? [markup.draft] : []);
	const worded = $derived(
		[...shown, ...drafted].filter((m) => SHOWS_WORDS.has(m.kind) || m.carried === 'changed')
	);
	const viewOf = (points: readonly Point[]) => points.map((p) => face.inView(p.x, p.y));

	/**
	 * Marks are drawn where the sheet last stood still; while it moves the whole drawing is moved and scaled as one
	 * picture, which costs the same for one mark as for thousands. The picture is an element around the SVG, since the
	 * browser lays out an SVG anew when its own transform changes, and it ends a little beyond the view, since keeping
	 * a whole sheet at a large scale ready costs too much. Unless marks can be chosen, a pane above takes the pointer, so
	 * that the browser does not ask every mark whether it lies there.
	 */
	let still = $state.raw({ x: 0, y: 0, scale: 1 });
	let settle: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		const { x, y, scale } = face.port;
		const first = untrack(() => still.scale === 1 && still.x === 0);
		clearTimeout(settle);
		if (first) still = { x, y, scale };
		else settle = setTimeout(() => (still = { x, y, scale }), 140);
	});
	const grown = $derived(face.port.scale / still.scale);
	const moving = $derived(grown !== 1 || face.port.x !== still.x || face.port.y !== still.y);
	const css = $derived(
		`translate(${face.port.x - still.x * grown}px, ${face.port.y - still.y * grown}px) scale(${grown})`
	);

	let host = $state<HTMLElement>();
	let pressed: { at: Point; id: string | null; corner: number | null; moved: boolean } | null = null;
	/** The chosen mark while a corner of it is drawn. */
	let resized = $state.raw<{ id: string; points: Point[] } | null>(null);

	function place(event: MouseEvent, hold = true): Point {
		const box = host!.getBoundingClientRect();
		const { x, y, scale } = face.port;
		const view = { x: (event.clientX - box.left - x) / scale, y: (event.clientY - box.top - y) / scale };
		const held =
			hold && markup.tool !== 'choose' && !['freehand', 'highlight'].includes(markup.tool)
				? face.hold?.(view.x, view.y)
				: null;
		const at = held ?? view;
		return face.lasting(at.x, at.y);
	}
	const markAt = (event: Event) =>
		(event.target as Element).closest?.('[data-mark]')?.getAttribute('data-mark') ?? null;
	const pixels = (n: number) => n / face.port.scale;

	function down(event: PointerEvent) {
		if (!editing || event.button !== 0) return;
		event.stopPropagation();
		host!.setPointerCapture(event.pointerId);
		const at = place(event);
		const { tool } = markup;
		if (tool === 'choose') {
			const corner = (event.target as Element).getAttribute?.('data-corner');
			const id = markAt(event);
			pressed = { at, id, corner: corner === null ? null : Number(corner), moved: false };
			const mark = id ? markup.marks.get(id) : undefined;
			if (corner === null) {
				if (!mark) {
					if (!event.shiftKey) markup.chosen.clear();
				} else if (event.shiftKey || !markup.chosen.has(mark.id)) markup.choose(mark, event.shiftKey);
			}
			return;
		}
		const kind: MarkKind = tool === 'scale' ? 'dimension' : tool;
		if (markup.draft && POINT_BY_POINT.has(kind)) return markup.addPoint(at);
		markup.begin(kind, face.page, at, letters);
		pressed = { at, id: null, corner: null, moved: false };
	}
	function move(event: PointerEvent) {
		if (!editing) return;
		const at = place(event);
		markup.show({ page: face.page, ...at });
		if (markup.tool !== 'choose') {
			if (markup.draft && (pressed || !POINT_BY_POINT.has(markup.draft.kind))) markup.extend(at);
			return;
		}
		if (!pressed) return;
		const [dx, dy] = [at.x - pressed.at.x, at.y - pressed.at.y];
		if (!pressed.moved && Math.hypot(dx, dy) < pixels(4)) return;
		pressed.moved = true;
		if (pressed.corner !== null) return resize(at);
		if (pressed.id) markup.drag = { dx, dy };
	}
	function up() {
		if (!editing || !pressed) return;
		const was = pressed;
		pressed = null;
		if (markup.tool === 'choose') {
			if (resized) {
				markup.setPoints(resized.id, resized.points);
				resized = null;
			} else if (markup.drag && was.moved) markup.moveBy(markup.drag.dx, markup.drag.dy);
			markup.drag = null;
			markup.show(null);
			return;
		}
		if (!markup.draft || POINT_BY_POINT.has(markup.draft.kind)) return;
		if (markup.tool === 'scale') {
			const { page, points } = markup.draft;
			markup.draft = null;
			return saysScale?.(page, lengthOf(points));
		}
		markup.finish(pixels(1.5));
	}
	const only = $derived(markup.chosen.size === 1 && !markup.drag ? (markup.changeable[0] ?? null) : null);
	/** Corners of what is chosen; points themselves for lines. */
	const corners = $derived.by(() => {
		if (!only || !editing || only.turn) return [];
		const points = viewOf(resized?.id === only.id ? resized.points : only.points);
		return points.length <= 12 ? points : [];
	});
	function resize(at: Point) {
		const mark = only ?? (resized && markup.marks.get(resized.id)) ?? null;
		if (!mark || !pressed || pressed.corner === null) return;
		const points = mark.points.map((p, i) => (i === pressed!.corner ? at : p));
		resized = { id: mark.id, points };
	}
	/** The dashes around everything that is chosen, for drawing it larger as one. */
	export function growBy(factor: number) {
		for (const mark of markup.changeable) {
			const box = boxOf(mark.points);
			const to = {
				x: box.x - (box.w * (factor - 1)) / 2,
				y: box.y - (box.h * (factor - 1)) / 2,
				w: box.w * factor,
				h: box.h * factor
			};
			markup.setPoints(mark.id, fitted(mark.points, box, to));
		}
		markup.resizeWords(factor);
	}

	function keys(event: KeyboardEvent) {
		if (!editing || inField(event)) return;
		const step = pixels(event.shiftKey ? 20 : 4);
		const ctrl = event.ctrlKey || event.metaKey;
		const up = face.lasting(0, 1).y < face.lasting(0, 0).y ? -1 : 1;
		const act: Record<string, () => void> = {
			Escape: () => {
				if (markup.draft) markup.draft = null;
				else if (markup.tool !== 'choose') markup.tool = 'choose';
				else markup.chosen.clear();
			},
			Enter: () => markup.finish(0),
			Delete: () => markup.remove(),
			Backspace: () => markup.remove(),
			...(markup.chosen.size
				? {
						ArrowLeft: () => markup.moveBy(-step, 0),
						ArrowRight: () => markup.moveBy(step, 0),
						ArrowUp: () => markup.moveBy(0, -step * up),
						ArrowDown: () => markup.moveBy(0, step * up)
					}
				: {})
		};
		const withCtrl: Record<string, () => void> = {
			z: () => (event.shiftKey ? markup.redo() : markup.undo()),
			y: () => markup.redo(),
			c: () => markup.copy(),
			v: () => markup.paste(face.page, letters),
			a: () => shown.forEach((m) => markup.chosen.add(m.id))
		};
		const run = ctrl ? withCtrl[event.key.toLowerCase()] : act[event.key];
		if (!run) return;
		event.preventDefault();
		event.stopPropagation();
		run();
	}
	/** Presses are for marks before they reach the ground that moves the sheet. */
	function taking(element: HTMLElement) {
		element.addEventListener('pointerdown', down);
		element.addEventListener('pointermove', move);
		element.addEventListener('pointerup', up);
		window.addEventListener('keydown', keys, true);
		return () => {
			element.removeEventListener('pointerdown', down);
			element.removeEventListener('pointermove', move);
			element.removeEventListener('pointerup', up);
			window.removeEventListener('keydown', keys, true);
		};
	}
	/** Where a mark stands now, with what is dragged here or elsewhere. */
	function pointsOf(mark: Mark): Point[] {
		if (resized?.id === mark.id) return viewOf(resized.points);
		const shift =
			(markup.drag && markup.chosen.has(mark.id) && markup.mayChange(mark) ? markup.drag : null) ??
			markup.others.find((o) => o.drag?.ids.includes(mark.id))?.drag;
		return viewOf(shift ? mark.points.map((p) => ({ x: p.x + shift.dx, y: p.y + shift.dy })) : mark.points);
	}
	const pointers = $derived(markup.others.filter((o) => o.pointer?.page === face.page));
	const scale = $derived(markup.scales.get(face.page) ?? null);
</script>

<div
	bind:this={host}
	class="absolute inset-0 overflow-hidden select-none {editing
		? markup.tool === 'choose'
			? 'cursor-default'
			: 'cursor-crosshair'
		: 'pointer-events-none'}"
	role="group"
	aria-label="Marks on the sheet: {shown.length}"
	ondblclick={() => markup.draft && markup.finish(0)}
	{@attach taking}
>
	<div
		class="absolute inset-0 origin-top-left overflow-clip will-change-transform [overflow-clip-margin:400px]"
		style:transform={css}
	>
		<svg
			class="absolute inset-0 h-full w-full overflow-visible"
			style:--grip={10 / still.scale}
			aria-hidden="true"
		>
			<g transform="translate({still.x} {still.y}) scale({still.scale})">
				<!-- Property by property, here and for the words: of two thousand marks, only what changed is looked at again. -->
				{#each [...shown, ...drafted] as mark (mark.id)}<MarkShape
						{mark}
						points={pointsOf(mark)}
						look={lookOf(mark.layer, codes)}
						width={line}
						{scale}
						unit={face.unit}
						chosen={markup.chosen.has(mark.id)}
					/>{/each}
				{#each corners as p, i (i)}<rect
						data-corner={i}
						class="cursor-move"
						x={p.x - 5 / still.scale}
						y={p.y - 5 / still.scale}
						width={10 / still.scale}
						height={10 / still.scale}
						fill="#fff"
						stroke="#0b6b58"
						stroke-width={1.5 / still.scale}
					/>{/each}
			</g>
		</svg>
		{#each worded as mark (mark.id)}<MarkWords
				{mark}
				points={pointsOf(mark)}
				look={lookOf(mark.layer, codes)}
				width={line}
				{scale}
				unit={face.unit}
				{still}
			/>{/each}
	</div>
	{#if !editing || markup.tool !== 'choose' || moving}<div
			class="pointer-events-auto absolute inset-0"
		></div>{/if}
	{#each pointers as other (other.client)}
		{@const at = face.inView(other.pointer!.x, other.pointer!.y)}
		<span
			class="pointer-events-none absolute px-1.5 text-[11px] font-semibold whitespace-nowrap text-white"
			style="left:{face.port.x + at.x * face.port.scale}px;top:{face.port.y +
				at.y * face.port.scale}px;background:{colourOf(other.user.id)}">{other.user.name}</span
		>
	{/each}
</div>
