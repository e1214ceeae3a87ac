import type { Cap } from '../access/decide';
import { allows, levelLabel, type Level } from '../access/levels';
import { heldAt, mayHere, type PlaceFacts } from '../access/may';
import { no, yes, type Answer } from '../acts/answer';

/** What of a shelf, folder or document as a place decides what can be done with it now. */
export interface SpotFacts extends PlaceFacts {
	kind: 'shelf' | 'folder' | 'document';
	/** Whether the asker made it. */
	own: boolean;
	closed: boolean;
	/** Whether this is a desk itself. */
	desk: boolean;
	/** Whether the freeze stands here, and not further up. */
	frozenHere: boolean;
}

/** Says whether an act applies at a place; asked after the level it needs. `held` is the level that is left after caps. */
export type PlaceRule = (facts: SpotFacts, held: Level) => Answer;

const always: PlaceRule = () => yes;

/** For what changes what somebody made: Organise, or Work for who made it. */
const madeBy =
	(doing: string): PlaceRule =>
	({ own }, held) =>
		own || allows(held, 'organise')
			? yes
			: no(
					'needs-level',
					`${doing} a folder that somebody else made needs Organise; you have ${levelLabel(held)}.`,
					{ needed: 'organise', held }
				);

const notOnShelf =
	(then: PlaceRule): PlaceRule =>
	(facts, held) =>
		facts.kind === 'shelf' ? no('not-found', 'A shelf is always at the top.') : then(facts, held);

const notTheDesk =
	(doing: string, then: PlaceRule): PlaceRule =>
	(facts, held) =>
		facts.desk ? no('conflict', `A desk is not ${doing}. What lies on it can be.`) : then(facts, held);

/**
 * When what can be done with a place applies, by the name of the act (A3, A6). The runner asks before it runs, the views
 * of folders and of access send the answers along, and buttons and menus show them.
 */
export const PLACE_RULES = {
	makeFolder: always,
	makeFolders: always,
	addDocument: always,
	renameFolder: notTheDesk('renamed', madeBy('Renaming')),
	moveFolder: notOnShelf(madeBy('Moving')),
	// Documents have a rule of their own; what lies in a folder is asked for when it goes.
	removePlace: notTheDesk('removed', (facts, held) =>
		facts.kind === 'document' ? yes : madeBy('Removing')(facts, held)
	),
	makePass: always,
	makeHatch: always,
	letIn: always,
	closePlace: notOnShelf(({ closed }) => (closed ? no('conflict', 'It is closed already.') : yes)),
	openPlace: ({ closed }) => (closed ? yes : no('conflict', 'It is not closed.')),
	freezePlace: ({ frozenHere }) => (frozenHere ? no('conflict', 'It is frozen already.') : yes),
	thawPlace: ({ frozenHere, freeze }) =>
		frozenHere
			? yes
			: no('conflict', freeze ? 'The freeze stands further up. Thaw it there.' : 'It is not frozen.'),
	markSensitive: always
} as const satisfies Record<string, PlaceRule>;

/** An act that can be asked about a place. */
export type PlaceAct = keyof typeof PLACE_RULES;
export const PLACE_ACTS = Object.keys(PLACE_RULES) as PlaceAct[];

/** Whether an act can be done at a place now: by level, caps and rule, in the order in which the runner asks. */
export function mayAt(
	{ level, past, asks }: { level: Level; past?: readonly Cap[]; asks?: PlaceRule },
	facts: SpotFacts
): Answer {
	const here = mayHere(level, facts, past);
	return here.may && asks ? asks(facts, heldAt(facts, past)) : here;
}
