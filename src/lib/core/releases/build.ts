import { PURPOSE_LABEL, type Purpose } from '../revisions/revisions';
import type { CheckName } from './checks';

/** What somebody approves: everything of a release that goes out or decides how. */
export interface Build {
	title: string;
	purpose: Purpose;
	/** Name, company and mail address of who gets it. */
	recipient: string;
	/** Name of who decides on it. */
	approver: string;
	/** YYYY-MM-DD, or null. */
	replyBy: string | null;
	/** In their order. */
	items: BuildItem[];
}

export interface BuildItem {
	number: string;
	title: string;
	/** The version that was chosen, and the label it gets at issue. */
	label: string;
	to: string;
	/** SHA-256 of its bytes. */
	hash: string;
	accepted: { check: CheckName; sentence: string; reason: string }[];
}

/** What differs between two states of a build, in sentences; empty when nothing does. */
export function differences(before: Build, after: Build): string[] {
	const said: string[] = [];
	const change = (what: string, from: string | null, to: string | null) => {
		if (from !== to) said.push(`${what}: ${from ?? 'nothing'} became ${to ?? 'nothing'}.`);
	};
	change('Title', before.title, after.title);
	change('Purpose', PURPOSE_LABEL[before.purpose], PURPOSE_LABEL[after.purpose]);
	change('To', before.recipient, after.recipient);
	change('Decides', before.approver, after.approver);
	change('Reply asked by', before.replyBy, after.replyBy);
	const was = new Map(before.items.map((i) => [i.number, i]));
	const is = new Map(after.items.map((i) => [i.number, i]));
	for (const item of before.items) if (!is.has(item.number)) said.push(`${item.number} is left out.`);
	for (const item of after.items) {
		const old = was.get(item.number);
		if (!old) said.push(`${item.number} ${item.label} is new in it.`);
		else if (old.hash !== item.hash || old.label !== item.label)
			said.push(`${item.number}: ${old.label} became ${item.label}.`);
		else if (old.to !== item.to) said.push(`${item.number} goes out as ${item.to}, not as ${old.to}.`);
		else if (old.title !== item.title) said.push(`${item.number} is now called “${item.title}”.`);
		else if (JSON.stringify(old.accepted) !== JSON.stringify(item.accepted))
			said.push(`${item.number}: what is said about its checks changed.`);
	}
	return said;
}
