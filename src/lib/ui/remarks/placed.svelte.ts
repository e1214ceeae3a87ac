import type { DraftAnchor, OnSheet } from './on-sheet';

/** A remark that stands at a place of a sheet, or on none. */
export interface PlacedRow {
	id: string;
	number: number;
	by: string;
	place: { page: number; x: number; y: number } | null;
	settled: boolean;
}

/** Remarks of somebody who does not work at the document itself, placed on the sheets that they are shown. */
export class PlacedRemarks implements OnSheet {
	draft = $state<{ anchor: Extract<DraftAnchor, { on: 'place' }> } | null>(null);
	picking = $state(false);
	chosen = $state<number | null>(null);

	/** @param about the remarks as they stand now, and the label of what is shown */
	constructor(private readonly about: () => { rows: readonly PlacedRow[]; label: string }) {}

	readonly rows: OnSheet['rows'] = $derived.by(() => {
		const { rows, label } = this.about();
		return rows.flatMap(({ place, settled, ...one }) =>
			place
				? [
						{
							...one,
							label,
							settled: settled ? { by: '', at: '', note: '' } : null,
							anchor: { on: 'place' as const, ...place }
						}
					]
				: []
		);
	});

	begin(anchor: DraftAnchor): void {
		this.picking = false;
		if (anchor.on === 'place') this.draft = { anchor };
	}
}
