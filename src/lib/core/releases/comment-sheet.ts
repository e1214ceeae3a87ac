import type { List } from '../lists/list';
import { answersOf, stateOf, taskOf } from '../remarks/comment-sheet';
import type { RemarkRow } from '../remarks/remarks';
import { dayOf, fullDayWords } from '../time/days';
import { releaseNumber } from './number';
import { VERDICT_LABEL, type Verdict } from './verdicts';

/** What somebody answered on a document of a release, or is to answer. Moments as ISO 8601 in UTC. */
export interface AnswerGiven {
	number: string;
	title: string;
	label: string;
	by: string;
	company: string;
	at: string | null;
	code: Verdict | null;
	words: string;
	/** The page on which it was placed as a remark or drawn; null for the verdict itself. */
	page: number | null;
	how: 'placed' | 'drawn' | null;
	/** Whether a controller made it of verdicts that differ. */
	consolidated: boolean;
	/** The remark that it became, where it opened work. */
	remark:
		| (Pick<RemarkRow, 'number' | 'due' | 'settled'> & {
				department: string;
				answers: readonly { by: string; text: string }[];
		  })
		| null;
}

/** The answers to a release as one table, as the trade's comment sheet: a row for each document and each who answers. */
export function releaseCommentSheet(
	about: { number: number; title: string; project: { code: string; name: string; timeZone: string } },
	rows: readonly AnswerGiven[],
	now: Date
): List {
	const { name, timeZone } = about.project;
	return {
		title: `Comments on release ${releaseNumber(about.number)} ${about.title}`,
		about: `${name}, as of ${fullDayWords(dayOf(now, timeZone))}`,
		name: 'Comments',
		columns: [
			{ head: 'Number', width: 30 },
			{ head: 'Title', width: 26 },
			{ head: 'Rev.', width: 10 },
			{ head: 'By', width: 16 },
			{ head: 'Company', width: 18 },
			{ head: 'On', width: 12 },
			{ head: 'Verdict', width: 20 },
			{ head: 'Comment', width: 42 },
			{ head: 'No.', width: 8 },
			{ head: 'Answers', width: 40 },
			{ head: 'To settle', width: 18 },
			{ head: 'State', width: 22 }
		],
		rows: rows.map(({ remark, ...row }) => [
			row.number,
			row.title,
			row.label,
			row.by,
			row.company,
			row.at && { day: dayOf(row.at, timeZone) },
			row.page !== null
				? `${row.code}, ${row.how === 'drawn' ? 'drawn' : 'remark'} on page ${row.page}`
				: row.code
					? `${row.code}, ${VERDICT_LABEL[row.code]}${row.consolidated ? ', made of verdicts that differ' : ''}`
					: 'not answered yet',
			row.words,
			remark?.number ?? null,
			remark && answersOf(remark),
			remark && taskOf(remark.department, remark.due),
			remark && stateOf(remark)
		])
	};
}
