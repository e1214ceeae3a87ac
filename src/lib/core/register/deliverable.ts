import type { Verdict } from '../releases';
import type { Purpose } from '../revisions/revisions';

/** A forecast that somebody made, and why; it stands beside the one by the rule (G3). */
export interface OwnForecast {
	day: string;
	reason: string;
	by: string;
	/** Moment at which it was made, ISO 8601. */
	at: string;
}

/** What is planned of a deliverable for one stage. Days are YYYY-MM-DD. */
export interface StagePlan {
	/** Key of the stage. */
	stage: string;
	/** Null when the stage belongs to the plan and nobody said a day yet. */
	planned: string | null;
	own: OwnForecast | null;
	/** The actual day as it was corrected, with the reason (G2). */
	corrected: { day: string; reason: string; by: string } | null;
}

/** A line of the register (G1): what the project must deliver; it is there before its document is. */
export interface Deliverable {
	id: string;
	number: string;
	title: string;
	/** Code of its department; null for the project's own. */
	department: string | null;
	/** What its number says of where and what it is, by the numbering rule; empty where it says nothing. */
	zone: string;
	type: string;
	responsible: { id: string; name: string } | null;
	weight: number;
	plan: readonly StagePlan[];
	document: DocumentFacts | null;
	/** The numbers between its own and the next of its series that nobody uses (G5). */
	missingAfter: readonly string[];
}

/** What the trail knows of the document that has a deliverable's number. */
export interface DocumentFacts {
	id: string;
	label: string;
	issued: boolean;
	/** The day of its first version. */
	begun: string;
	/** The day of its first issue for each purpose (G2). */
	issues: readonly { purpose: Purpose; day: string }[];
	/** The newest release it went out with that asks for a reply, and what was answered. */
	reply: { release: number; to: string; by: string | null; verdict: Verdict | null } | null;
}

/** Heaviest weight of a deliverable; 1 is usual. */
export const MOST_WEIGHT = 1_000;
