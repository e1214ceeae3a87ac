import type { List } from '../lists/list';
import { dayOf, fullDayWords } from '../time/days';
import { plainRemark, type RemarkRow } from './remarks';

/** Where a remark stands, in words. */
function whereOf({ anchor, quote }: RemarkRow): string {
	if (quote) return `“${quote}”`;
	if (anchor.on === 'place') return `page ${anchor.page}`;
	return anchor.on === 'version' ? 'this version' : 'the whole document';
}

/** What was answered to a remark, a line each. */
export const answersOf = ({ answers }: { answers: readonly { by: string; text: string }[] }): string =>
	answers.map((one) => `${one.by}: ${plainRemark(one.text)}`).join('\n');

/** Whose task a remark is, and by when; nothing where it is nobody's. */
export const taskOf = (who: string | undefined, due: string | null): string =>
	who ? `${who}${due ? ` by ${fullDayWords(due)}` : ''}` : '';

/** Whether a remark is open, or who settled it and how. */
export const stateOf = ({ settled }: Pick<RemarkRow, 'settled'>): string =>
	settled ? `settled by ${settled.by}${settled.note ? `: ${settled.note}` : ''}` : 'open';

/** Every remark on a document as one table, as the trade's comment sheet: by department, in the order of their numbers. */
export function commentSheet(
	about: { number: string; title: string; label: string; project: string; timeZone: string },
	remarks: readonly RemarkRow[]
): List {
	return {
		title: `Remarks on ${about.number} ${about.title}`,
		about: `${about.project}, at ${about.label}`,
		name: 'Remarks',
		columns: [
			{ head: 'No.', width: 8 },
			{ head: 'From', width: 10 },
			{ head: 'By', width: 18 },
			{ head: 'On', width: 12 },
			{ head: 'At', width: 11 },
			{ head: 'Where', width: 24 },
			{ head: 'Remark', width: 50 },
			{ head: 'Answers', width: 50 },
			{ head: 'To settle', width: 20 },
			{ head: 'State', width: 24 }
		],
		rows: [...remarks]
			.sort((a, b) => a.from.localeCompare(b.from) || a.number - b.number)
			.map((row) => [
				row.number,
				row.from,
				row.by,
				{ day: dayOf(row.at, about.timeZone) },
				row.label,
				whereOf(row),
				plainRemark(row.text),
				answersOf(row),
				taskOf(row.assigned?.name, row.due),
				stateOf(row)
			])
	};
}
