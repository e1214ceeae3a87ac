import type { Cap } from '../access/decide';
import { allows, type Level } from '../access/levels';
import { heldAt, inHand, mayHere, type HeldLock, type PlaceFacts } from '../access/may';
import { no, yes, type Answer } from '../acts/answer';
import { liveKindOf, type DocumentKind, type LiveKind } from '../live/live';

/** What of a document and of whoever asks decides what can be done with it now. */
export interface DocumentFacts extends PlaceFacts {
	number: string;
	kind: DocumentKind;
	/** Of its newest version. */
	mediaType: string;
	/** Whether the asker added it. */
	own: boolean;
	/** Whether the asker waits for the lock, and has asked for it. */
	wish: 'asked' | 'waits' | null;
	/** Whether a lock of the asker's was broken, and they have not said what became of their work. */
	broken: boolean;
}

/** Says whether an act applies; asked after the level it needs. `held` is the level that is left after caps. */
export type Rule = (facts: DocumentFacts, held: Level) => Answer;

const always: Rule = () => yes;
const nobody = () => no('conflict', 'Nobody has this in hand.');

/** For what only the holder of the lock does with it. */
const withOwnLock: Rule = ({ lock }) => (!lock ? nobody() : lock.mine ? yes : inHand(lock));

/** For what somebody else's lock bars, whatever the level. */
const pastNoLock =
	(then: Rule): Rule =>
	(facts, held) =>
		facts.lock && !facts.lock.mine ? inHand(facts.lock) : then(facts, held);

const onFile: Rule = ({ kind, number }) =>
	kind === 'file'
		? yes
		: no(
				'conflict',
				`${number} is edited together; hand in or restore there, or end editing together first.`
			);

/** For what is done in a document that is edited together, of this kind when only one has it. */
const onLive = (only?: LiveKind) =>
	pastNoLock(({ kind }) => {
		if (kind === 'file') return no('conflict', 'This is a file; it is not edited together.');
		return !only || kind === only ? yes : no('conflict', `Only a ${only} that is edited together has this.`);
	});

const beginAs = (as: LiveKind) =>
	pastNoLock(({ kind, mediaType }) => {
		if (kind !== 'file') return no('conflict', 'This is edited together already.');
		return liveKindOf(mediaType) === as
			? yes
			: no('invalid', `The newest version is no file that can be edited together as a ${as}.`);
	});

/** For what changes the document as such: Organise, or Work for whoever added it. */
const tidy: Rule = (facts, held) =>
	allows(held, 'organise') || (allows(held, 'work') && facts.own)
		? yes
		: no('needs-level', 'What others added needs Organise here.', { needed: 'organise', held });

/** Whether a lock can be taken where this one stands, if any. */
export function mayTake(lock: HeldLock | null, number: string): Answer {
	if (!lock) return yes;
	return lock.mine ? no('conflict', `You have ${number} in hand already.`) : inHand(lock);
}

/** Asking and waiting need a lock of somebody else. */
const forTheLock =
	(then: (lock: HeldLock, facts: DocumentFacts) => Answer): Rule =>
	(facts) => {
		if (!facts.lock) return no('conflict', 'Nobody has this in hand; it is free.');
		return facts.lock.mine ? no('conflict', 'You have this in hand yourself.') : then(facts.lock, facts);
	};

/**
 * When what can be done with a document applies, by the name of the act. The runner asks before it runs, the view of
 * a document sends the answers along, and buttons, menus and shortcuts show them.
 */
export const DOCUMENT_RULES = {
	takeLock: ({ lock, number }) => mayTake(lock, number),
	extendLock: withOwnLock,
	giveBackLock: withOwnLock,
	handOverLock: withOwnLock,
	askForLock: forTheLock(({ holder }, { wish }) =>
		wish === 'asked' ? no('conflict', `You asked ${holder} already; you will be told when it is free.`) : yes
	),
	waitForLock: forTheLock(() => yes),
	breakLock: ({ lock }) =>
		!lock ? nobody() : lock.mine ? no('conflict', 'This lock is your own; hand in, or give it back.') : yes,
	answerBrokenLock: ({ broken }) =>
		broken ? yes : no('conflict', 'No lock of yours on this was broken that you have not answered.'),
	handIn: onFile,
	mergeSide: pastNoLock(({ lock }) => (lock ? yes : no('conflict', 'Take it in hand first, then merge.'))),
	discardSide: always,
	restoreVersion: pastNoLock(onFile),
	writeTitleBlock: pastNoLock((facts, held) =>
		liveKindOf(facts.mediaType) === 'drawing'
			? onFile(facts, held)
			: no('invalid', 'Only in a drawing (DXF) can a title block be written here.')
	),
	workLive: beginAs('text'),
	workScheduleLive: beginAs('schedule'),
	workDrawingLive: beginAs('drawing'),
	handInLive: onLive(),
	restoreLive: onLive(),
	endLive: onLive(),
	addLivePicture: onLive('text'),
	giveLayer: onLive('drawing'),
	issueRevision: ({ lock }) => (lock ? inHand(lock) : yes),
	changeState: always,
	changeDocument: pastNoLock(tidy),
	removePlace: tidy,
	makePass: always,
	downloadDocument: always
} as const satisfies Record<string, Rule>;

/** An act that can be asked about a document. */
export type DocumentAct = keyof typeof DOCUMENT_RULES;
export const DOCUMENT_ACTS = Object.keys(DOCUMENT_RULES) as DocumentAct[];

/** What an act asks for before it runs: the level, the caps that do not count, and its rule. */
export interface Asking {
	level: Level;
	past?: readonly Cap[];
	applies?: Rule;
}

/** Whether an act can be done with a document now: by level, caps and rule, in the order in which the runner asks. */
export function mayDo({ level, past, applies }: Asking, facts: DocumentFacts): Answer {
	const here = mayHere(level, facts, past);
	return here.may && applies ? applies(facts, heldAt(facts, past)) : here;
}
