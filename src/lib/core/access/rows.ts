import type { SubjectKind } from './decide';
import type { Given, Level } from './levels';

/** One line of the access of a place: a subject, how far it goes, and where that comes from. Times are ISO 8601. */
export interface AccessRow {
	/** Null for the rule that controllers may everywhere. */
	grant: string | null;
	kind: SubjectKind | 'controllers';
	subject: string;
	name: string;
	/** Code of a department. */
	code: string | null;
	/** What stands below the name: "department, 9 people". */
	about: string;
	outside: boolean;
	people: number;
	level: Given;
	exactly: boolean;
	/** Whether it stands here, so that it can be changed and ended here. */
	here: boolean;
	/** The place above it comes from, when one may look at that; null for here. */
	from: { id: string; name: string } | null;
	by: string | null;
	at: string;
	until: string | null;
	/** Name of the subject that brought them in, or null. */
	broughtInBy: string | null;
	bringCount: number;
	bringLevel: Level | null;
	brought: number;
	/** Whether the reader may end it. */
	mayEnd: boolean;
}

/** One person who reaches a place. */
export interface ReachRow {
	person: string;
	name: string;
	outside: boolean;
	level: Level;
	through: string;
}

/** Who else reaches a scope, in one word for a column. */
export interface ReachSummary {
	scope: string;
	people: number;
	outside: number;
	passes: number;
	/** Code of the only department that reaches it beside document control, or null. */
	only: string | null;
	closed: boolean;
}

/** What a change of access would mean, counted. */
export interface EffectRow {
	people: number;
	documents: number;
	inHand: number;
	/** One line a person, most documents first; cut at a few. */
	lines: { name: string; lost: number; gained: number; lower: number; higher: number; inHand: number }[];
}
