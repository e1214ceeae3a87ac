import type { Can } from '../acts/answer';
import { allows, type Level } from '../access/levels';

/** What a remark is about: a place on a sheet, a passage of a text, a cell, an entity, a version, or the whole document. */
export type Anchor =
	| { on: 'whole' }
	| { on: 'version' }
	/**
	 * A place on a page, in the sheet's own units: points from the upper left corner for PDF, pixels for pictures, drawing
	 * units with y upward for drawings, so that it stays where it is when the sheet's outline changes.
	 */
	| { on: 'place'; page: number; x: number; y: number }
	/** Words of a live text; the text itself carries the mark with this id. */
	| { on: 'passage'; mark: string }
	/** A cell of a live schedule, by the ids of its row and column. */
	| { on: 'cell'; row: string; column: string }
	/** An entity of a live drawing, by its place in the file or the id of what was added, and where it stood. */
	| { on: 'entity'; entity: string; x: number; y: number };

/** A person or department that is mentioned, as written in the text: `@[Oke Lindvar](person:abc)`. */
export interface Mention {
	kind: 'person' | 'department';
	id: string;
	name: string;
}

const MENTION = /@\[([^\]\n]{1,120})\]\((person|department):([a-z0-9]{10})\)/g;

/** Everybody mentioned in a text, once each. */
export function mentionsIn(text: string): Mention[] {
	const found = new Map<string, Mention>();
	for (const [, name, kind, id] of text.matchAll(MENTION))
		found.set(`${kind}:${id}`, { kind: kind as Mention['kind'], id: id!, name: name! });
	return [...found.values()];
}

/** How a mention is written. */
export function mentionText({ kind, id, name }: Mention): string {
	return `@[${name.replace(/[[\]\n]/g, '')}](${kind}:${id})`;
}

/** A text as people read it: mentions are names. */
export function plainRemark(text: string): string {
	return text.replace(MENTION, '$1');
}

/** A text in pieces, for showing mentions as such. */
export function remarkPieces(text: string): { text: string; mention: boolean }[] {
	const found: { text: string; mention: boolean }[] = [];
	let at = 0;
	for (const match of text.matchAll(MENTION)) {
		if (match.index > at) found.push({ text: text.slice(at, match.index), mention: false });
		found.push({ text: match[1]!, mention: true });
		at = match.index + match[0].length;
	}
	if (at < text.length) found.push({ text: text.slice(at), mention: false });
	return found;
}

/** An answer to a remark. */
export interface AnswerRow {
	by: string;
	byId: string;
	at: string;
	text: string;
}

/** A remark with its answers, as lists show it. Times are ISO 8601 in UTC. */
export interface RemarkRow {
	id: string;
	/** Counts the remarks of its document. */
	number: number;
	document: string;
	documentNumber: string;
	documentTitle: string;
	/** The version it was made on. */
	label: string;
	anchor: Anchor;
	/** The words it is about, as they were then. */
	quote: string;
	text: string;
	by: string;
	byId: string;
	/** Code of the department of who made it, or the company of an outsider. */
	from: string;
	at: string;
	answers: AnswerRow[];
	assigned: { kind: 'person' | 'department'; id: string; name: string } | null;
	/** Day on which it is due, or null. */
	due: string | null;
	settled: { by: string; at: string; note: string } | null;
	/** What the reader can do with it now, by the name of the act. */
	can: Can<'answerRemark' | 'settleRemark' | 'reopenRemark' | 'assignRemark'>;
}

/** What decides who may settle a remark. */
export interface SettleFacts {
	createdBy: string;
	assignedPerson: string | null;
	assignedDepartment: string | null;
}

/**
 * Whether somebody may settle a remark or open it again: who made it, whom it was given to, and whoever has Work.
 * @param level the level held on its document; without Remark nobody does
 */
export function maySettle(
	remark: SettleFacts,
	who: { id: string; departments: readonly string[] },
	level: Level | null
): boolean {
	if (!allows(level, 'remark')) return false;
	return (
		allows(level, 'work') ||
		remark.createdBy === who.id ||
		remark.assignedPerson === who.id ||
		(remark.assignedDepartment !== null && who.departments.includes(remark.assignedDepartment))
	);
}

/** How lists of remarks are narrowed. */
export const REMARK_FILTERS = ['open', 'settled', 'mine', 'all'] as const;
export type RemarkFilter = (typeof REMARK_FILTERS)[number];

/** Whether a remark is past its day. @param today as YYYY-MM-DD */
export function isOverdue(remark: Pick<RemarkRow, 'due' | 'settled'>, today: string): boolean {
	return remark.settled === null && remark.due !== null && remark.due < today;
}
