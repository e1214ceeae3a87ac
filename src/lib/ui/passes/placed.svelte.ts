import type { AnswerOf } from '../../client/cupboard';
import type { DraftAnchor, OnSheet } from '../remarks/on-sheet';

type Item = AnswerOf<'passView'>['items'][number];

/** The remarks that who answers by a pass has placed on the sheets of one document. */
export class PlacedRemarks implements OnSheet {
	draft = $state<{ anchor: Extract<DraftAnchor, { on: 'place' }> } | null>(null);
	picking = $state(false);
	chosen = $state<number | null>(null);

	/** @param item the document as it stands now, and who answers */
	constructor(private readonly about: () => { item: Item; by: string }) {}

	readonly rows: OnSheet['rows'] = $derived.by(() => {
		const { item, by } = this.about();
		return item.placed.map(({ id, number, page, x, y }) => ({
			id,
			number,
			by,
			label: item.label,
			settled: null,
			anchor: { on: 'place' as const, page, x, y }
		}));
	});

	begin(anchor: DraftAnchor): void {
		this.picking = false;
		if (anchor.on === 'place') this.draft = { anchor };
	}
}
