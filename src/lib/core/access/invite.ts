import { dayTyped } from '../time/typed';
import { MAIL, nameFromMail, partsOf, withoutMail } from '../words/list-line';
import { plain } from '../words/plain';
import { GIVEN, LEVELS, levelLabel, type Given, type Level } from './levels';

/** A person, department or group that a line may name. */
export interface Known {
	kind: 'person' | 'department' | 'group' | 'everyone';
	id: string;
	name: string;
	/** Code of a department. */
	code?: string;
	email?: string;
	/** How many people it stands for. */
	people: number;
	outside?: boolean;
}

/** One line of a pasted list, read: whom it lets in, how far, until when; or what is wrong with it. */
export interface InviteLine {
	/** Counted from 1, as the writer sees them. */
	line: number;
	text: string;
	known: Known | null;
	/** Somebody not known yet, by mail address. */
	fresh: { name: string; email: string } | null;
	/** Null is a bar. */
	level: Given;
	/** Last day, as YYYY-MM-DD. */
	until: string | null;
	fault: string | null;
}

/** A level by its word; `Barred` and `Bar` bar, anything else is undefined. */
function readLevel(text: string): Given | undefined {
	const word = plain(text);
	return word === 'bar' ? 'barred' : GIVEN.find((given) => given === word);
}

/**
 * Reads a typed or pasted list of whom to let in: one a line, a name, department, group or mail address (also as
 * `Name <mail>`), then a level, then perhaps a last day. A line without a level gets the preset one.
 *
 * @param known everybody and everything that can be named
 * @param preset level of lines that name none; the lowest that serves is View (A7)
 * @param today as YYYY-MM-DD
 */
export function readInvites(
	text: string,
	known: readonly Known[],
	preset: Level,
	today: string
): InviteLine[] {
	const lines: InviteLine[] = [];
	const seen = new Map<string, number>();
	text.split(/\r?\n/).forEach((raw, i) => {
		if (!raw.trim()) return;
		const line: InviteLine = {
			line: i + 1,
			text: raw.trim(),
			known: null,
			fresh: null,
			level: preset,
			until: null,
			fault: null
		};
		lines.push(line);
		const who: string[] = [];
		for (const part of partsOf(raw)) {
			const level = readLevel(part);
			const day = dayTyped(part.replace(/^until\s+/i, ''), today, true);
			if (level !== undefined && who.length) line.level = level;
			else if (day && who.length) line.until = day;
			else who.push(part);
		}
		findSubject(line, who, known);
		if (line.until && line.until < today) line.fault ??= `${line.until} lies in the past.`;
		const key = line.known ? `${line.known.kind}:${line.known.id}` : line.fresh?.email;
		if (!line.fault && key) {
			const before = seen.get(key);
			if (before) line.fault = `The same as line ${before}. Each can be named once.`;
			else seen.set(key, i + 1);
		}
	});
	return lines;
}

function findSubject(line: InviteLine, who: string[], known: readonly Known[]): void {
	const text = who.join(', ');
	const mail = MAIL.exec(text)?.[0].toLowerCase();
	if (mail) {
		const found = known.find((k) => k.email?.toLowerCase() === mail);
		const name = withoutMail(text);
		if (found) line.known = found;
		else line.fresh = { name: name || nameFromMail(mail), email: mail };
		return;
	}
	const wanted = plain(text);
	const fitting = known.filter((k) => plain(k.name) === wanted || (k.code && plain(k.code) === wanted));
	if (fitting.length === 1) line.known = fitting[0]!;
	else if (fitting.length > 1)
		line.fault = `“${text}” means ${fitting.length} here. Use the mail address instead.`;
	else {
		const unread = who.length > 1 ? who.slice(1).find((part) => !MAIL.test(part)) : undefined;
		const first = known.some((k) => plain(k.name) === plain(who[0] ?? ''));
		line.fault =
			unread && first
				? `“${unread}” is neither a level (${LEVELS.map(levelLabel).join(', ')}) nor a day.`
				: `Nobody here is called “${text}”, and it is not a mail address.`;
	}
}
