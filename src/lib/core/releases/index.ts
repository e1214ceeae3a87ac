/** Checks, verdicts and the manifest of a release (rules T2, T4, T5). */

import type { CheckName } from './checks';

export * from './build';
export * from './checks';
export * from './reminders';

/** What becomes of a release, in order. */
export const RELEASE_STATES = [
	'building',
	'in-review',
	'approved',
	'issued',
	'superseded',
	'cancelled'
] as const;

export const VERDICTS = ['A', 'B', 'C', 'D'] as const;
export type Verdict = (typeof VERDICTS)[number];
export const VERDICT_LABEL: Record<Verdict, string> = {
	A: 'accepted',
	B: 'accepted with comments',
	C: 'revise and resubmit',
	D: 'refused'
};

/** Whether the client's reply to a release is overdue (T13): it was asked by a day gone by, and verdicts are missing. */
export const isReplyOverdue = (
	release: { state: string; replyBy: string | null; answered: number; documents: number },
	today: string
): boolean =>
	release.state === 'issued' &&
	release.replyBy !== null &&
	release.replyBy < today &&
	release.answered < release.documents;

/** One document as the manifest of a release lists it. Sizes in bytes, hashes SHA-256 in hex. */
export interface ManifestItem {
	number: string;
	title: string;
	revision: string;
	file: string;
	size: number;
	sha256: string;
	/** What a check asked to look at, and why it goes out all the same. */
	accepted?: { check: CheckName; sentence: string; reason: string; by: string }[];
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
	/** The trail's last entry before the issue and its hash; whoever holds the note can prove that it still stands. */
	trail?: { entry: number; hash: string };
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
