import type { List } from '../lists/list';
import { dayOf, fullDayWords } from '../time/days';
import { HOLDING_LABEL, type Holding } from './holders';

/** Who holds what as a table: a row a document, a column a holder. */
export function holdersList(
	about: { name: string; timeZone: string },
	holders: readonly { key: string; name: string; company: string }[],
	rows: readonly {
		number: string;
		title: string;
		now: { label: string };
		issued: string | null;
		held: readonly { holder: string; label: string; state: Holding }[];
	}[],
	now: Date
): List {
	return {
		title: `Who holds what of ${about.name}`,
		about: `as of ${fullDayWords(dayOf(now, about.timeZone))}`,
		name: 'Who holds what',
		columns: [
			{ head: 'Number', width: 24 },
			{ head: 'Title', width: 40 },
			{ head: 'Now', width: 9 },
			{ head: 'Issued', width: 9 },
			...holders.map(({ name, company }) => ({ head: company ? `${name}, ${company}` : name, width: 22 }))
		],
		rows: rows.map((row) => {
			const held = new Map(row.held.map((one) => [one.holder, one]));
			return [
				row.number,
				row.title,
				row.now.label,
				row.issued,
				...holders.map(({ key }) => {
					const one = held.get(key);
					return one ? `${one.label}, ${HOLDING_LABEL[one.state]}` : null;
				})
			];
		})
	};
}
