import type { Reference } from '../references/references';

/** The checks of a release on each of its documents (rule T2). */

export const CHECKS = [
	'newest',
	'handed-in',
	'free',
	'frozen',
	'settled',
	'opens',
	'number',
	'title-block',
	'same-bytes',
	'revision',
	'issued-before',
	'references',
	'named-by'
] as const;
export type CheckName = (typeof CHECKS)[number];
export const CHECK_LABEL: Record<CheckName, string> = {
	newest: 'Newest version',
	'handed-in': 'Handed in',
	free: 'Not in hand',
	frozen: 'Not frozen',
	settled: 'Remarks settled',
	opens: 'File opens',
	number: 'Number',
	'title-block': 'Title block',
	'same-bytes': 'Own file',
	revision: 'Revision',
	'issued-before': 'Not issued before',
	references: 'References',
	'named-by': 'Named as current'
};

export type CheckResult = 'fine' | 'look' | 'stops';

/** Why something that a check asked to look at goes out all the same. Times are ISO 8601. */
export interface Accepted {
	reason: string;
	by: string;
	at: string;
}

/** The step by which what a check found is mended. */
export const REMEDIES = [
	'take-newest',
	'leave-out',
	'add-references',
	'ask-holder',
	'settle-remarks',
	'write-title-block'
] as const;
export type Remedy = (typeof REMEDIES)[number];

/** The answer of one check on one document, with the step that mends it where there is one. */
export interface Check {
	name: CheckName;
	result: CheckResult;
	sentence: string;
	remedy: Remedy | null;
	/** Set where somebody looked, and said why it goes out. */
	accepted?: Accepted;
}

/** A document that one of a release names. */
export interface NamedItem {
	number: string;
	/** The revision that it is named with, or null. */
	revision: string | null;
	/** The revision of it that is current once the release is out; null where none is issued. */
	current: string | null;
	how: Reference;
	/** Whether it is there to be put in the release, too. */
	there: boolean;
}

/** What is known of one document of a release when its checks run. */
export interface ItemFacts {
	number: string;
	chosenLabel: string;
	newestLabel: string;
	/** The chosen version is the newest one. */
	isNewest: boolean;
	/** Whether something live was written that no version holds. */
	unhandedIn: boolean;
	/** Name of who has it in hand, or null. */
	inHandOf: string | null;
	/** Whether somebody asked them for it already. */
	holderAsked: boolean;
	removed: boolean;
	/** Why it stands under a freeze, or null. */
	frozen: string | null;
	/** The documents that it names, and how these stand once this release is out. */
	named: readonly NamedItem[];
	/** The earlier revisions at which what is issued, and is not in this release, names it. */
	namedAs: readonly string[];
	/** Remarks on it that nobody has settled. */
	openRemarks: number;
	/** What opening the stored file showed: null when it opens and its hash holds, else what is wrong. */
	fault: string | null;
	/** True when the kind of file cannot be checked beyond its hash. */
	unchecked: boolean;
	/** What the numbering rule says of the number, when it does not fit. */
	numberFault: string | null;
	/** What the sheet says of itself; null where nothing is read. */
	titleBlock: { number: string | null; revision: string | null };
	/** Whether that stands in attributes, which can be written here. */
	writable: boolean;
	/** Other documents of the project whose newest version has the very same bytes, by number. */
	twins: readonly string[];
	/** The label it would get, or null when its own does not fit the scheme. */
	to: string | null;
	/** The sequence that the purpose demands, by prefix, and the one the document is in. */
	demanded: string;
	sequence: string | null;
}

const fine = (name: CheckName, sentence: string): Check => ({ name, result: 'fine', sentence, remedy: null });
const look = (name: CheckName, sentence: string, remedy: Check['remedy'] = null): Check => ({
	name,
	result: 'look',
	sentence,
	remedy
});
const stops = (name: CheckName, sentence: string, remedy: Check['remedy'] = 'leave-out'): Check => ({
	name,
	result: 'stops',
	sentence,
	remedy
});

const RUN: Record<CheckName, (f: ItemFacts) => Check> = {
	newest: (f) =>
		f.removed
			? stops('newest', 'The document has been removed.')
			: f.isNewest
				? fine('newest', `${f.chosenLabel} is the newest version.`)
				: stops('newest', `${f.chosenLabel} was chosen, but ${f.newestLabel} is newer.`, 'take-newest'),
	'handed-in': (f) =>
		f.unhandedIn
			? stops('handed-in', `Something was written live since ${f.newestLabel} and is not handed in.`)
			: fine('handed-in', 'Nothing waits to be handed in.'),
	free: (f) =>
		f.inHandOf === null
			? fine('free', 'Nobody has it in hand.')
			: f.holderAsked
				? stops('free', `${f.inHandOf} has it in hand, and was asked for it.`)
				: stops('free', `${f.inHandOf} has it in hand.`, 'ask-holder'),
	frozen: (f) =>
		f.frozen === null
			? fine('frozen', 'It stands under no freeze.')
			: look('frozen', `It is frozen: ${f.frozen}`),
	settled: (f) =>
		f.openRemarks === 0
			? fine('settled', 'Every remark on it is settled.')
			: look(
					'settled',
					`${f.openRemarks === 1 ? 'One remark' : `${f.openRemarks} remarks`} on it ${f.openRemarks === 1 ? 'is' : 'are'} open.`,
					'settle-remarks'
				),
	opens: (f) =>
		f.fault !== null
			? stops('opens', f.fault)
			: f.unchecked
				? look('opens', 'The hash holds; this kind of file is not opened by the check.')
				: fine('opens', 'The file opens and its hash holds.'),
	number: (f) =>
		f.numberFault === null
			? fine('number', 'The number fits the rule of the project.')
			: look('number', `The number does not fit the rule of the project: ${f.numberFault}`),
	'title-block': titleBlock,
	'same-bytes': (f) =>
		f.twins.length
			? look(
					'same-bytes',
					`The very same file is also ${f.twins.slice(0, 3).join(', ')}${f.twins.length > 3 ? ` and ${f.twins.length - 3} more` : ''}; one of them is the wrong one.`,
					'leave-out'
				)
			: fine('same-bytes', 'No other document has this file.'),
	revision: (f) =>
		f.sequence === null || f.to === null
			? stops('revision', `${f.chosenLabel} is no revision of the project’s scheme.`)
			: f.to.startsWith(f.demanded)
				? fine('revision', `${f.to} is what the purpose demands.`)
				: look(
						'revision',
						`The purpose demands ${f.demanded}, and this is in ${f.sequence} already; it would go out as ${f.to}.`
					),
	'issued-before': (f) =>
		f.to !== null && f.to === f.chosenLabel
			? look('issued-before', `${f.to} is issued already, and nothing was handed in since.`, 'leave-out')
			: fine('issued-before', 'It was not issued at this revision.'),
	references,
	'named-by': ({ namedAs, to }) =>
		namedAs.length && to !== null
			? look('named-by', `What is issued already names ${some(namedAs)} of it, which ${to} supersedes.`)
			: fine('named-by', 'Nothing that is issued names an earlier revision of it.')
};

/** So many numbers are named in a sentence. */
const SAID = 3;
const some = (all: readonly string[]) =>
	`${all.slice(0, SAID).join(', ')}${all.length > SAID ? ` and ${all.length - SAID} more` : ''}`;

/** Whether there is such a document is not said, nor who names one: whoever decides may not be one who may know of it (A10). */
function references({ named }: ItemFacts): Check {
	const missing = named.filter((one) => one.current === null);
	const other = named.filter((one) => one.how === 'older' || one.how === 'newer');
	if (!missing.length && !other.length)
		return fine(
			'references',
			named.length ? 'What it names is issued as it is named.' : 'It names no other document.'
		);
	const says = [
		...(missing.length
			? [`It names ${some(missing.map((one) => one.number))}, of which nothing is issued.`]
			: []),
		...(other.length
			? [`It names ${some(other.map((one) => `${one.number} ${one.revision} (${one.current} is current)`))}.`]
			: [])
	];
	return look('references', says.join(' '), missing.some((one) => one.there) ? 'add-references' : null);
}

/** A working save carries the revision that is prepared, so its sheet may say that, its own label, or what it becomes. */
function titleBlock({ titleBlock: says, writable, number, chosenLabel, to }: ItemFacts): Check {
	const remedy = writable && to !== null ? 'write-title-block' : null;
	if (says.number !== null && says.number.toUpperCase() !== number.toUpperCase())
		return stops(
			'title-block',
			`The sheet’s own title block says ${says.number}, not ${number}.`,
			remedy ?? 'leave-out'
		);
	const fitting = [to, chosenLabel, chosenLabel.replace(/\.\d+$/, '')];
	if (says.revision !== null && !fitting.includes(says.revision.toUpperCase()))
		return look(
			'title-block',
			`The sheet’s own title block says revision ${says.revision}; it would go out as ${to ?? chosenLabel}.`,
			remedy
		);
	return fine(
		'title-block',
		says.number === null
			? 'No number is read in a title block.'
			: `The title block says ${says.number}${says.revision ? ` ${says.revision}` : ''}.`
	);
}

/** Runs the checks on one document. */
export function checkItem(facts: ItemFacts): Check[] {
	return CHECKS.map((name) => RUN[name](facts));
}

/** The worst result among checks; what somebody accepted with a reason no longer asks. */
export function worst(checks: readonly Check[]): CheckResult {
	if (checks.some((c) => c.result === 'stops')) return 'stops';
	return checks.some((c) => c.result === 'look' && !c.accepted) ? 'look' : 'fine';
}
