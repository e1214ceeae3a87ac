<script lang="ts">
	import type { Mark, Point, Scale } from '../../core/markup/mark';
	import { markBox, piecesOf } from '../../core/markup/shape';
	import { dashOf, type Look } from './look';

	/** One mark as SVG, in units of the sheet. */
	let {
		mark,
		points,
		look,
		width,
		scale,
		unit,
		chosen = false
	}: {
		mark: Mark;
		/** Its points in the view. */
		points: Point[];
		look: Look;
		/** Width of a line in units of the sheet. */
		width: number;
		scale: Scale | null;
		unit: string;
		chosen?: boolean;
	} = $props();

	const pieces = $derived(piecesOf(mark, points, scale, unit));
	const box = $derived(markBox(mark, points));
	const turn = $derived(
		mark.turn ? `rotate(${mark.turn} ${box.x + box.w / 2} ${box.y + box.h / 2})` : undefined
	);
</script>

<g transform={turn} data-mark={mark.id} data-kind={mark.kind}>
	{#if chosen}<rect
			x={box.x - width * 3}
			y={box.y - width * 3}
			width={box.w + width * 6}
			height={box.h + width * 6}
			fill="none"
			stroke="#0b6b58"
			stroke-width={width * 0.8}
			stroke-dasharray="{width * 3} {width * 2}"
		/>{/if}
	{#each pieces as piece, i (i)}{#if piece.kind === 'path'}
			{#if piece.plain}<path
					d={piece.d}
					fill="none"
					stroke={look.colour}
					stroke-opacity="0.32"
					stroke-width={mark.size * 1.2}
					stroke-linecap="round"
					stroke-linejoin="round"
				/>{:else}<path
					d={piece.d}
					fill={piece.filled ? look.colour : piece.wash ? look.colour : 'none'}
					fill-opacity={piece.filled ? 1 : 0.07}
					stroke={look.colour}
					stroke-width={width}
					stroke-dasharray={piece.filled ? undefined : dashOf(look, width)}
					stroke-linejoin="round"
				/>{/if}
		{:else}<text
				x={piece.x}
				y={piece.y}
				font-size={piece.size}
				fill={look.colour}
				font-weight="600"
				text-anchor={piece.middle ? 'middle' : 'start'}
				paint-order="stroke"
				stroke="#fff"
				stroke-width={piece.size * 0.16}
				stroke-linejoin="round"
				>{#each piece.lines as line, k (k)}<tspan x={piece.x} dy={k ? piece.size * 1.3 : 0}>{line}</tspan
					>{/each}</text
			>{/if}{/each}
	{#if mark.carried === 'changed'}<text
			x={box.x}
			y={box.y - width * 4}
			font-size={mark.size * 0.9}
			fill="#b3311f"
			font-weight="700"
			paint-order="stroke"
			stroke="#fff"
			stroke-width={mark.size * 0.2}>the sheet changed here</text
		>{/if}
</g>
