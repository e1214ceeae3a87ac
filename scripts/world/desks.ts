import { addDocument } from '../../src/lib/server/documents/acts';
import { openDesk } from '../../src/lib/server/places/acts-desk';
import type { Stage } from './stage';

/** What lies on somebody's desk: begun, and not ready for others. */
const DRAFTS = [
	{
		who: 'Oke Lindvar',
		daysAgo: 6,
		number: 'VFT-MW-LS-00-RP-0041',
		title: 'Raising the linkspan in one tide',
		text: `# Raising the linkspan in one tide

To be asked of Rhosyn before anybody else reads this.

The method statement raises the deck over two tides, with a night on the props. If the towers take the deck on both jacks
at once, the whole raising fits between the morning low and the afternoon high: five hours and ten minutes on a neap.

## For it
- No night on the props, so no watch on the quay.
- The ferry loses one sailing instead of three.

## Against it
- Both jacks have to be tested together; the fabricator has tested them one by one.
- Above 9 m/s of wind it does not begin at all.

## Still to be found out
1. Does Tarn Steelwork have a second pump?
2. What does the harbour ask for when the quay is closed by day?
`
	},
	{
		who: 'Ines Maddock',
		daysAgo: 2,
		number: 'VFT-DC-ZZ-00-RP-0012',
		title: 'What to ask of the project before hand-over',
		text: `# What to ask of the project before hand-over

Draft for the meeting of leads; figures still to be taken from the register.

1. Every department names who answers for its as-built sheets.
2. Remarks older than four weeks are settled or given to somebody.
3. Passes to releases that were superseded are ended by the end of the month.
4. The operating manual takes its drawings from what is issued, not from the shelves.
`
	}
] as const;

/** People put their drafts on desks of their own. */
export function planDesks(
	stage: Stage,
	step: (daysAgo: number, hour: number, run: () => Promise<void>) => void
): void {
	for (const { who, daysAgo, number, title, text } of DRAFTS)
		step(daysAgo, 15, async () => {
			const { id: folder } = await stage.act(who, openDesk, { project: stage.project });
			const upload = await stage.send(who, `${number} ${title}.md`, text);
			await stage.act(who, addDocument, { folder, upload, number, title, note: 'Begun' });
		});
}
