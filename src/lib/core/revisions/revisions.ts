/** One sequence of issued revisions, for example preliminary P01, P02 … (rule L6). */
export interface Sequence {
	prefix: string;
	name: string;
	/** Digits of the counter; P01 has two. */
	digits: number;
}

export const PURPOSES = ['information', 'comment', 'approval', 'construction', 'as-built'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A project's revision scheme. It is data: nothing below knows P or C by name. */
export interface RevisionScheme {
	/** In the order a document passes through them; a document never goes back to an earlier sequence. */
	sequences: Sequence[];
	/** Which sequence a purpose of release demands, by prefix. */
	demands: Record<Purpose, string>;
}

export const DEFAULT_SCHEME: RevisionScheme = {
	sequences: [
		{ prefix: 'P', name: 'preliminary', digits: 2 },
		{ prefix: 'C', name: 'contractual', digits: 2 }
	],
	demands: { information: 'P', comment: 'P', approval: 'P', construction: 'C', 'as-built': 'C' }
};

export const PURPOSE_LABEL: Record<Purpose, string> = {
	information: 'For information',
	comment: 'For comment',
	approval: 'For approval',
	construction: 'For construction',
	'as-built': 'As built'
};

/** A parsed label. `save` is null for an issued revision. */
export interface Revision {
	prefix: string;
	count: number;
	save: number | null;
}

/** Writes a label: `P03` or `P03.2`. Throws RangeError when the prefix is not in the scheme. */
export function label(scheme: RevisionScheme, revision: Revision): string {
	const sequence = scheme.sequences.find((s) => s.prefix === revision.prefix);
	if (!sequence) throw new RangeError(`No sequence ${revision.prefix} in this revision scheme`);
	const issued = sequence.prefix + String(revision.count).padStart(sequence.digits, '0');
	return revision.save === null ? issued : `${issued}.${revision.save}`;
}

/** Reads a label, or gives null when it does not fit the scheme. */
export function parse(scheme: RevisionScheme, text: string): Revision | null {
	const sequence = [...scheme.sequences]
		.sort((a, b) => b.prefix.length - a.prefix.length)
		.find((s) => text.startsWith(s.prefix));
	if (!sequence) return null;
	const match = /^(\d+)(?:\.(\d+))?$/.exec(text.slice(sequence.prefix.length));
	if (!match) return null;
	const count = Number(match[1]);
	const save = match[2] === undefined ? null : Number(match[2]);
	if (count < 1 || save === 0) return null;
	return { prefix: sequence.prefix, count, save };
}

/** The working save that follows: P03.1 → P03.2, P03 → P04.1, nothing → P01.1. */
export function nextSave(scheme: RevisionScheme, current: Revision | null): Revision {
	if (current === null) return { prefix: scheme.sequences[0]!.prefix, count: 1, save: 1 };
	if (current.save === null) return { ...current, count: current.count + 1, save: 1 };
	return { ...current, save: current.save + 1 };
}

/**
 * The revision a document gets when issued for a purpose: P03.2 → P03, or C01 when the purpose demands
 * the contractual sequence. An issued revision without later saves stays what it is within its sequence.
 */
export function nextIssue(scheme: RevisionScheme, current: Revision, purpose: Purpose): Revision {
	const demanded = scheme.demands[purpose];
	const at = (prefix: string) => scheme.sequences.findIndex((s) => s.prefix === prefix);
	if (at(demanded) > at(current.prefix)) return { prefix: demanded, count: 1, save: null };
	return { ...current, save: null };
}

/** Orders labels of one document as they came into being: P03.1 < P03.2 < P03 < P04.1 < C01. */
export function compare(scheme: RevisionScheme, a: Revision, b: Revision): number {
	const at = (r: Revision) => scheme.sequences.findIndex((s) => s.prefix === r.prefix);
	return (
		at(a) - at(b) ||
		a.count - b.count ||
		(a.save ?? Number.POSITIVE_INFINITY) - (b.save ?? Number.POSITIVE_INFINITY) ||
		0
	);
}

/**
 * What is wrong with a scheme, in a sentence; null when it can be used.
 * @param used labels that documents wear and that must stay readable
 */
export function checkScheme(scheme: RevisionScheme, used: readonly string[] = []): string | null {
	const { sequences, demands } = scheme;
	if (!sequences.length) return 'A scheme needs at least one sequence.';
	for (const { prefix, digits, name } of sequences) {
		if (!/^[A-Z]{1,4}$/.test(prefix))
			return `“${prefix}” cannot begin revisions: use one to four capital letters.`;
		if (!name) return `Say what ${prefix} stands for.`;
		if (!Number.isInteger(digits) || digits < 1 || digits > 4)
			return `The counter of ${prefix} has one to four digits.`;
	}
	const prefixes = sequences.map((s) => s.prefix);
	const twice = prefixes.find((p, i) => prefixes.indexOf(p) !== i);
	if (twice) return `${twice} stands twice; every sequence needs a beginning of its own.`;
	for (const purpose of PURPOSES)
		if (!prefixes.includes(demands[purpose]))
			return `“${PURPOSE_LABEL[purpose]}” demands ${demands[purpose] || 'nothing'}, which is not a sequence of this scheme.`;
	const lost = used.find(
		(text) => parse(scheme, text) === null || label(scheme, parse(scheme, text)!) !== text
	);
	if (lost) return `Documents wear ${lost}; the scheme must keep its sequence and digits.`;
	return null;
}

/** The first labels of a document in a scheme, as it would be saved and issued: for showing what a scheme means. */
export function exampleOf(scheme: RevisionScheme): string[] {
	const labels: string[] = [];
	let at: Revision | null = null;
	for (const sequence of scheme.sequences) {
		const purpose = PURPOSES.find((p) => scheme.demands[p] === sequence.prefix);
		for (let round = 0; round < 2; round++) {
			at = nextSave(scheme, at);
			labels.push(label(scheme, at));
			// Without a purpose that demands it, a sequence is never reached.
			if (!purpose) break;
			at = nextIssue(scheme, at, purpose);
			labels.push(label(scheme, at));
		}
	}
	return [...new Set(labels)];
}

/** Schemes to begin from; a project begins with the first. */
export const EXAMPLE_SCHEMES: readonly { key: string; label: string; scheme: RevisionScheme }[] = [
	{ key: 'two', label: 'Preliminary, then contractual', scheme: DEFAULT_SCHEME },
	{
		key: 'three',
		label: 'Preliminary, contractual, as built',
		scheme: {
			sequences: [...DEFAULT_SCHEME.sequences, { prefix: 'B', name: 'as built', digits: 2 }],
			demands: { ...DEFAULT_SCHEME.demands, 'as-built': 'B' }
		}
	},
	{
		key: 'one',
		label: 'One sequence for everything',
		scheme: {
			sequences: [{ prefix: 'R', name: 'revision', digits: 2 }],
			demands: { information: 'R', comment: 'R', approval: 'R', construction: 'R', 'as-built': 'R' }
		}
	}
];
