import type { Anchor, RemarkRow } from '../../core/remarks/remarks';

/** Where a remark that is being written will stand; passages are given by lasting positions. */
export type DraftAnchor = Exclude<Anchor, { on: 'passage' }> | { on: 'passage'; from: string; to: string };

/** Remarks as a sheet shows them: where each stands, which is looked at, and where the next is to stand. */
export interface OnSheet {
	readonly rows: readonly Pick<RemarkRow, 'id' | 'number' | 'by' | 'label' | 'settled' | 'anchor'>[];
	/** The remark that is being written, or null. */
	readonly draft: { anchor: DraftAnchor } | null;
	/** Whether a place on the sheet is being chosen. */
	readonly picking: boolean;
	/** Number of the remark that is looked at. */
	chosen: number | null;
	/** Begins a remark at a place. */
	begin(anchor: DraftAnchor): void;
}
