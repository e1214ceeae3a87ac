<script lang="ts">
	import { markBox, piecesOf } from '../../core/markup/shape';
	import { dashOf } from '../../core/markup/look';
	import type { DrawnMark } from './look';

	/** One mark as SVG, in units of the sheet, without its words. */
	let { mark, points, look, width, scale, unit, chosen = false }: DrawnMark & { chosen?: boolean } = $props();

	const pieces = $derived(piecesOf(mark, points, scale, unit).filter((piece) => piece.kind === 'path'));
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
	{#each pieces as piece, i (i)}{#if piece.plain}<path
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
			/>{/if}{#if !piece.filled}<path d={piece.d} class="grip" fill="none" />{/if}
	{/each}
</g>

<style>
	/** A thin or dashed line is taken hold of within a few pixels of it. Never painted. */
	.grip {
		stroke: none;
		stroke-width: var(--grip);
		pointer-events: stroke;
	}
</style>
