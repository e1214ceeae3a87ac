import { MAIL, nameFromMail, partsOf, withoutMail } from '../words/list-line';
import { plain } from '../words/plain';
import { isColleague } from './colleagues';

/** What somebody is in a project when they join it. */
export const ROLES = ['member', 'lead', 'controller'] as const;
export type Role = (typeof ROLES)[number];

/** A department that a line may name. */
export interface NamedDepartment {
	id: string;
	code: string;
	name: string;
}

/** One line of a list of people who join a project, read; or what is wrong with it. */
export interface NewcomerLine {
	/** Counted from 1, as the writer sees them. */
	line: number;
	name: string;
	email: string;
	department: NamedDepartment | null;
	role: Role;
	/** Of another organisation than the project's own (A12). */
	outside: boolean;
	fault: string | null;
}

/** Words of a list for each role, as {@link plain} writes them. */
const ROLE_WORDS: Record<string, Role> = {
	member: 'member',
	lead: 'lead',
	controller: 'controller',
	'document controller': 'controller'
};

/**
 * Reads a typed or pasted list of people who join a project: one a line, a name and a mail address (also as
 * `Name <mail>`, or the address alone), then in any order a department by code or name, and lead or controller.
 * Tabs, semicolons and commas part, so that columns copied from a sheet are read as they are.
 *
 * @param departments of the project
 * @param preset department and role of lines that name none
 * @param here mail addresses of those who are in the project already, in small letters
 * @param ownDomains mail domains of colleagues
 */
export function readNewcomers(
	text: string,
	departments: readonly NamedDepartment[],
	preset: { department: string | null; role: Role },
	here: ReadonlySet<string>,
	ownDomains: readonly string[]
): NewcomerLine[] {
	const seen = new Map<string, number>();
	return text.split(/\r?\n/).flatMap((raw, i) => {
		if (!raw.trim()) return [];
		const who: string[] = [];
		const named: NamedDepartment[] = [];
		let role: Role | null = null;
		for (const part of partsOf(raw)) {
			const word = plain(part);
			const department = departments.find((one) => plain(one.code) === word || plain(one.name) === word);
			if (department) named.push(department);
			else if (Object.hasOwn(ROLE_WORDS, word)) role = ROLE_WORDS[word]!;
			else who.push(part);
		}
		const said = who.join(', ');
		const email = MAIL.exec(said)?.[0].toLowerCase() ?? '';
		const outside = email !== '' && !isColleague(email, ownDomains);
		const usual = outside ? null : (departments.find((one) => one.id === preset.department) ?? null);
		const line: NewcomerLine = {
			line: i + 1,
			name: withoutMail(said) || nameFromMail(email),
			email,
			department: named[0] ?? usual,
			role: role ?? (outside ? 'member' : preset.role),
			outside,
			fault: null
		};
		line.fault = faultOf(line, raw.trim(), named, here);
		const before = seen.get(email);
		if (!line.fault && before) line.fault = `The same as line ${before}. Each can be named once.`;
		if (email) seen.set(email, before ?? i + 1);
		return [line];
	});
}

function faultOf(
	line: NewcomerLine,
	said: string,
	named: readonly NamedDepartment[],
	here: ReadonlySet<string>
): string | null {
	const { name, email, outside, role, department } = line;
	if (!email) return `“${said}” has no mail address.`;
	if (here.has(email)) return `${email} is in this project already.`;
	if (named.length > 1)
		return `Two departments: ${named.map((one) => one.code).join(' and ')}. Name one, and add the other afterwards.`;
	if (outside && (department || role !== 'member'))
		return `${name} comes from outside and belongs to no department; let them in at a place instead.`;
	if (role === 'lead' && !department) return `${name} is to lead, but no department is named.`;
	return null;
}
