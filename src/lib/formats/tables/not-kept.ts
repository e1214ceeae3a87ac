import type { ShownTable } from '../../core/files/shown';

/** What of the cells of some sheets is not kept when only their values are, each as a sentence. */
export function notKept(tables: readonly ShownTable[]): string[] {
	const sum = (of: (table: ShownTable) => number) => tables.reduce((n, table) => n + of(table), 0);
	const [formulas, comments] = [sum((t) => t.formulas), sum((t) => t.comments)];
	const plural = (n: number, word: string) => (n === 1 ? `1 ${word}` : `${n.toLocaleString('en')} ${word}s`);
	return [
		...(formulas
			? [
					`${plural(formulas, 'formula')} ${formulas === 1 ? 'becomes what it gives' : 'become what they give'} now.`
				]
			: []),
		...(comments
			? [`${plural(comments, 'comment')} on cells ${comments === 1 ? 'stays' : 'stay'} in the file.`]
			: []),
		...(tables.some((t) => t.cut) ? ['There are more rows or columns than are read here.'] : [])
	];
}
