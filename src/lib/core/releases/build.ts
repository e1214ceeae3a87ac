import { PURPOSE_LABEL, type Purpose } from '../revisions/revisions';
import { ITEM_ORDER_LABEL } from './arrange';
import type { CheckName } from './checks';
import { leavingWords } from './copies';

/** What somebody approves: everything of a release that goes out or decides how. */
export interface Build {
	title: string;
	purpose: Purpose;
	/** Who gets what of it and how, a sentence for each. */
	recipients: string[];
	/** What is said to those who get it. */
	words: string;
	/** How its documents leave, in words, where they leave changed. */
	leaving?: string;
	/** How its documents are listed, in words, where that is not as they were added. */
	arranged?: string;
	/** Who decides on it, a sentence for each step. */
	route: string[];
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
	/** SHA-256 of the marks that are burned in, where some are. */
	marks?: string;
	accepted: { check: CheckName; sentence: string; reason: string }[];
}

/** What is said about the checks of a document. A build that was stored has its fields in another order. */
const saidOf = ({ accepted }: BuildItem): string =>
	JSON.stringify(accepted.map(({ check, sentence, reason }) => [check, sentence, reason]));

const AS_THEY_ARE = leavingWords({ stamped: false, withMarks: false });
const AS_THEY_CAME = ITEM_ORDER_LABEL.added;

/** What differs between two states of a build, in sentences; empty when nothing does. */
export function differences(before: Build, after: Build): string[] {
	const said: string[] = [];
	const change = (what: string, from: string | null, to: string | null) => {
		if (from !== to) said.push(`${what}: ${from ?? 'nothing'} became ${to ?? 'nothing'}.`);
	};
	change('Title', before.title, after.title);
	change('Purpose', PURPOSE_LABEL[before.purpose], PURPOSE_LABEL[after.purpose]);
	change('To', before.recipients.join('; '), after.recipients.join('; '));
	// Builds that were approved before words could be said lack them.
	change('Words of the cover note', before.words || null, after.words || null);
	change('Its documents leave', before.leaving ?? AS_THEY_ARE, after.leaving ?? AS_THEY_ARE);
	change('Its documents are listed', before.arranged ?? AS_THEY_CAME, after.arranged ?? AS_THEY_CAME);
	change('Route', before.route.join('; '), after.route.join('; '));
	change('Reply asked by', before.replyBy, after.replyBy);
	const stayed = (all: BuildItem[], others: BuildItem[]) => {
		const known = new Set(others.map((one) => one.number));
		return all.map((one) => one.number).filter((number) => known.has(number));
	};
	if (
		before.arranged === after.arranged &&
		stayed(before.items, after.items).join() !== stayed(after.items, before.items).join()
	)
		said.push('Its documents are listed in another order.');
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
		else if (old.marks !== item.marks) said.push(`${item.number}: the marks that go out on it changed.`);
		else if (saidOf(old) !== saidOf(item))
			said.push(`${item.number}: what is said about its checks changed.`);
	}
	return said;
}
