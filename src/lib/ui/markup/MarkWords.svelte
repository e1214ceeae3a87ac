<script module lang="ts">
	/** Of the typeface's own measures: how far below the top of its first line letters stand, in heights of letters. */
	const BASE = 0.984;
</script>

<script lang="ts">
	import { markBox, piecesOf } from '../../core/markup/shape';
	import type { DrawnMark } from './look';

	/**
	 * The words of one mark, in pixels, over its SVG. As text of SVG they would be laid out anew at each change of scale,
	 * which costs more than everything else on a sheet full of marks.
	 */
	let {
		mark,
		points,
		look,
		width,
		scale,
		unit,
		still
	}: DrawnMark & {
		/** Where the sheet stands: pixels = view × scale + (x, y). */
		still: { x: number; y: number; scale: number };
	} = $props();

	const box = $derived(markBox(mark, points));
	const pieces = $derived([
		...piecesOf(mark, points, scale, unit).flatMap((piece) =>
			piece.kind === 'words' ? [{ ...piece, colour: look.colour }] : []
		),
		...(mark.carried === 'changed'
			? [
					{
						x: box.x,
						y: box.y - width * 4,
						lines: ['the sheet changed here'],
						size: mark.size * 0.9,
						middle: false,
						colour: '#b3311f'
					}
				]
			: [])
	]);
	const x = (of: number) => still.x + of * still.scale;
	const y = (of: number) => still.y + of * still.scale;
</script>

<div
	class="absolute top-0 left-0"
	data-mark={mark.id}
	style:rotate={mark.turn ? `${mark.turn}deg` : undefined}
	style:transform-origin="{x(box.x + box.w / 2)}px {y(box.y + box.h / 2)}px"
>
	{#each pieces as piece, i (i)}{@const size = piece.size * still.scale}
		<div
			class="absolute flex w-0 leading-[1.3] font-semibold {piece.middle ? 'justify-center' : ''}"
			style="left:{x(piece.x)}px;top:{y(piece.y) - BASE * size}px;font-size:{size}px;color:{piece.colour}"
		>
			<span class="halo shrink-0 whitespace-pre">{piece.lines.join('\n')}</span>
		</div>{/each}
</div>

<style>
	.halo {
		paint-order: stroke;
		-webkit-text-stroke: 0.16em #fff;
		stroke-linejoin: round;
	}
</style>
