<script lang="ts">
	import type { RemarkRow } from '../../core/remarks/remarks';
	import type { OnSheet } from './on-sheet';
	import type { Face } from '../viewers/sheet-face';

	/** The remarks that stand on a sheet, by their numbers; and the pointer that chooses a place for the next. */
	let {
		face,
		remarks,
		label,
		entityAt
	}: {
		face: Face;
		remarks: OnSheet;
		label: string;
		/** Where an entity of a drawing stands now; without it, or when it is gone, where it stood. */
		entityAt?: (entity: string) => { x: number; y: number } | null;
	} = $props();

	/** The page and place of a remark in lasting coordinates, or null when it stands on no place. */
	function placeOf({ anchor }: Pick<RemarkRow, 'anchor'>) {
		if (anchor.on === 'place') return anchor;
		return anchor.on === 'entity' ? { page: 1, ...(entityAt?.(anchor.entity) ?? anchor) } : null;
	}
	const here = $derived(
		remarks.rows.flatMap((row) => {
			const place = placeOf(row);
			return place?.page === face.page && (!row.settled || remarks.chosen === row.number)
				? [{ row, at: face.inView(place.x, place.y) }]
				: [];
		})
	);
	/** The sheet is moved by its ground; a press on a number is for the number. */
	function keep(element: HTMLElement) {
		const stop = (event: Event) => event.stopPropagation();
		element.addEventListener('pointerdown', stop);
		return () => element.removeEventListener('pointerdown', stop);
	}
	function pick(event: MouseEvent) {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const { x, y, scale } = face.port;
		const place = face.lasting((event.clientX - box.left - x) / scale, (event.clientY - box.top - y) / scale);
		remarks.begin({ on: 'place', page: face.page, ...place });
	}
	const draft = $derived(
		remarks.draft?.anchor.on === 'place' && remarks.draft.anchor.page === face.page
			? face.inView(remarks.draft.anchor.x, remarks.draft.anchor.y)
			: null
	);
	/** What is chosen beside the sheet comes into view. */
	let shown = -1;
	$effect(() => {
		const { chosen } = remarks;
		const row = remarks.rows.find((r) => r.number === chosen);
		const place = row && placeOf(row);
		if (chosen === null || chosen === shown || !place || !face.port.width) return;
		if (place.page !== face.page) return face.turnTo(place.page);
		shown = chosen;
		const { x, y } = face.inView(place.x, place.y);
		face.port.showBox(x, y, 0, 0);
	});
	$effect(() => {
		if (remarks.chosen === null) shown = -1;
	});
	const style = (at: { x: number; y: number }) =>
		`left:${face.port.x + at.x * face.port.scale}px;top:${face.port.y + at.y * face.port.scale}px`;
</script>

{#each here as { row, at } (row.id)}<button
		{@attach keep}
		class="absolute grid h-6 min-w-6 -translate-x-1/2 -translate-y-1/2 cursor-pointer place-items-center rounded-full px-1.5 font-mono text-[12px] font-semibold shadow {row.settled
			? 'bg-done text-sheet'
			: 'bg-[#17231f] text-white'} {remarks.chosen === row.number ? 'ring-3 ring-plank' : ''}"
		style={style(at)}
		aria-label="Remark {row.number} by {row.by}{row.label === label ? '' : `, made on ${row.label}`}"
		onclick={() => (remarks.chosen = row.number)}>{row.number}</button
	>{/each}
{#if draft}<span
		class="pointer-events-none absolute h-5 w-5 -translate-x-1/2 -translate-y-1/2 rounded-full border-3 border-act bg-act-soft"
		style={style(draft)}
	></span>{/if}
{#if remarks.picking}<button
		{@attach keep}
		class="absolute inset-0 cursor-crosshair"
		aria-label="Choose the place of the remark"
		onclick={pick}
	></button>{/if}
