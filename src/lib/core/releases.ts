/** Checks, verdicts and the manifest of a release (rules T2, T4, T5). */

export const CHECKS = ['newest', 'free', 'settled', 'opens'] as const;
export type CheckName = (typeof CHECKS)[number];
export const CHECK_LABEL: Record<CheckName, string> = {
	newest: 'Newest',
	free: 'Free',
	settled: 'Settled',
	opens: 'Opens'
};

export type CheckResult = 'fine' | 'look' | 'stops';

/** The answer of one check on one document, with the step that mends it where there is one. */
export interface Check {
	name: CheckName;
	result: CheckResult;
	sentence: string;
	remedy: 'take-newest' | 'leave-out' | null;
}

/** What is known of one document of a release when its checks run. */
export interface ItemFacts {
	chosenLabel: string;
	newestLabel: string;
	/** The chosen version is the newest one. */
	isNewest: boolean;
	/** Name of who has it in hand, or null. */
	inHandOf: string | null;
	removed: boolean;
	/** Remarks on it that nobody has settled. */
	openRemarks: number;
	/** What opening the stored file showed: null when it opens and its hash holds, else what is wrong. */
	fault: string | null;
	/** True when the kind of file cannot be checked beyond its hash. */
	unchecked: boolean;
}

/** Runs the checks on one document. */
export function checkItem(facts: ItemFacts): Check[] {
	const fine = (name: CheckName, sentence: string): Check => ({
		name,
		result: 'fine',
		sentence,
		remedy: null
	});
	return [
		facts.removed
			? { name: 'newest', result: 'stops', sentence: 'The document has been removed.', remedy: 'leave-out' }
			: facts.isNewest
				? fine('newest', `${facts.chosenLabel} is the newest version.`)
				: {
						name: 'newest',
						result: 'stops',
						sentence: `${facts.chosenLabel} was chosen, but ${facts.newestLabel} is newer.`,
						remedy: 'take-newest'
					},
		facts.inHandOf === null
			? fine('free', 'Nobody has it in hand.')
			: { name: 'free', result: 'stops', sentence: `${facts.inHandOf} has it in hand.`, remedy: 'leave-out' },
		facts.openRemarks === 0
			? fine('settled', 'Every remark on it is settled.')
			: {
					name: 'settled',
					result: 'look',
					sentence: `${facts.openRemarks === 1 ? 'One remark' : `${facts.openRemarks} remarks`} on it ${facts.openRemarks === 1 ? 'is' : 'are'} open.`,
					remedy: null
				},
		facts.fault !== null
			? { name: 'opens', result: 'stops', sentence: facts.fault, remedy: 'leave-out' }
			: facts.unchecked
				? {
						name: 'opens',
						result: 'look',
						sentence: 'The hash holds; this kind of file is not opened by the check.',
						remedy: null
					}
				: fine('opens', 'The file opens and its hash holds.')
	];
}

/** The worst result among checks. */
export function worst(checks: readonly Check[]): CheckResult {
	if (checks.some((c) => c.result === 'stops')) return 'stops';
	return checks.some((c) => c.result === 'look') ? 'look' : 'fine';
}

export const VERDICTS = ['A', 'B', 'C', 'D'] as const;
export type Verdict = (typeof VERDICTS)[number];
export const VERDICT_LABEL: Record<Verdict, string> = {
	A: 'accepted',
	B: 'accepted with comments',
	C: 'revise and resubmit',
	D: 'refused'
};

/** One document as the manifest of a release lists it. Sizes in bytes, hashes SHA-256 in hex. */
export interface ManifestItem {
	number: string;
	title: string;
	revision: string;
	file: string;
	size: number;
	sha256: string;
}

export interface Manifest {
	format: 'cupboard-manifest/1';
	project: string;
	release: string;
	title: string;
	purpose: string;
	issuedAt: string;
	issuedBy: string;
	approvedBy: string;
	recipient: string;
	documents: ManifestItem[];
}

/** A release's number as people read it: 42 → 0042. */
export function releaseNumber(number: number): string {
	return String(number).padStart(4, '0');
}

/** The name under which a document leaves: number, revision and title with the file's own extension. */
export function outgoingName(number: string, revision: string, title: string, extension: string): string {
	const stem = `${number}_${revision} ${title}`.replace(/[\\/:*?"<>|]/g, '-').slice(0, 150);
	return extension ? `${stem}.${extension}` : stem;
}
