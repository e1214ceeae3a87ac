import { describe, expect, it } from 'vitest';
import { SHELVES, titlesOf, type FolderPlan } from '../catalogue';
import { clauses } from './index';
import { filled } from './kind';

const foldersOf = (plans: FolderPlan[]): FolderPlan[] =>
	plans.flatMap((plan) => [plan, ...foldersOf(plan.inside ?? [])]);
/** Titles of all that is written in clauses. */
const titles = foldersOf(Object.values(SHELVES).flat())
	.flatMap((folder) => folder.runs)
	.filter(({ form }) => ['pdf', 'docx', 'md'].includes(form))
	.flatMap((run) => titlesOf(run.titles));
/** What a title is about, without its number, its month or its part. */
const subject = (title: string) => title.replace(/,.*| \d+$| (TP|BH|C|B)\d.*/, '');
const said = (title: string) => clauses(title, 1).flatMap((clause) => clause.body);

describe('the texts of the world', () => {
	it('are many', () => expect(titles.length).toBeGreaterThan(150));

	it('say nothing that a text about something else says', () => {
		const by = new Map<string, string>();
		const shared: string[] = [];
		for (const title of titles)
			for (const sentence of said(title)) {
				const before = by.get(sentence) ?? title;
				if (subject(before) !== subject(title)) shared.push(`${before} and ${title}: ${sentence}`);
				by.set(sentence, before);
			}
		expect(shared).toEqual([]);
	});

	it('differ from each other, those of one series too', () => {
		const whole = new Map<string, string>();
		const same: string[] = [];
		for (const title of titles) {
			const text = said(title).join('\n');
			if (whole.has(text)) same.push(`${whole.get(text)} and ${title}`);
			whole.set(text, title);
		}
		expect(same).toEqual([]);
	});

	it('leave no choice open', () => {
		for (const title of titles)
			for (const edit of [1, 4])
				expect(JSON.stringify(clauses(title, edit))).not.toMatch(/[{}|]\w|undefined|NaN/);
	});

	it('keep what they said when something is added to them', () => {
		for (const title of titles) {
			const later = clauses(title, 3).flatMap((clause) => clause.body);
			for (const sentence of said(title)) expect(later).toContain(sentence);
		}
	});
});

it('a choice is made the same each time, and numbers keep their decimals', () => {
	expect(filled('{a|b|c} {3..3} {0.40..0.40} {-2..-2}', 'x')).toMatch(/^[abc] 3 0\.40 -2$/);
	expect(filled('{1..900}', 'x')).toBe(filled('{1..900}', 'x'));
	expect(filled('{1..900}', 'x')).not.toBe(filled('{1..900}', 'y'));
});
