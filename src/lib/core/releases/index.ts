/** Checks, verdicts and the manifest of a release (rules T2, T4, T5). */

import type { CheckName } from './checks';
import type { MadeFrom } from './copies';
import type { Suitability } from './suitability';

export * from './arrange';
export * from './build';
export * from './checks';
export * from './colleagues';
export * from './comment-sheet';
export * from './copies';
export * from './distribution';
export * from './holders';
export * from './holders-list';
export * from './listed';
export * from './number';
export * from './recipients';
export * from './release-list';
export * from './reminders';
export * from './route';
export * from './states';
export * from './suitability';
export * from './verdicts';

/** What issuing a release asks of who does it (T11): its number, typed, or a code of their two-step sign-in. */
export const ISSUE_NEEDS = ['number', 'code'] as const;
export type IssueNeeds = (typeof ISSUE_NEEDS)[number];

/** One document as the manifest of a release lists it. Sizes in bytes, hashes SHA-256 in hex. */
export interface ManifestItem {
	number: string;
	title: string;
	revision: string;
	file: string;
	size: number;
	sha256: string;
	/** What it stands under in the list, where that is in groups. */
	group?: string;
	/** Set where the file was made from another that stays, by a stamp or marks. */
	madeFrom?: MadeFrom;
	/** What a check asked to look at, and why it goes out all the same. */
	accepted?: { check: CheckName; sentence: string; reason: string; by: string }[];
}

export interface Manifest {
	format: 'cupboard-manifest/1';
	project: string;
	release: string;
	title: string;
	purpose: string;
	/** What its documents may be used for; older manifests say nothing of it. */
	suitability?: Suitability;
	/** What whoever built it says to those who get it. */
	words?: string;
	issuedAt: string;
	issuedBy: string;
	approvedBy: string;
	recipient: string;
	/** The trail's last entry before the issue and its hash; whoever holds the note can prove that it still stands. */
	trail?: { entry: number; hash: string };
	documents: ManifestItem[];
}

/** The name under which a document leaves: number, revision and title with the file's own extension. */
export function outgoingName(number: string, revision: string, title: string, extension: string): string {
	const stem = `${number}_${revision} ${title}`.replace(/[\\/:*?"<>|%]/g, '-').slice(0, 150);
	return extension ? `${stem}.${extension}` : stem;
}
