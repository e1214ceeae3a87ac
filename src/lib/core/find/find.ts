/** A word that somebody looks for, with the words that may stand for it. */
export interface Sought {
	/** In small letters, without signs. */
	word: string;
	/** Known words that count as well: those that begin with it, or else hold it or come near it. */
	instead: readonly string[];
	/** Whether everything that begins with it counts, known or not. */
	asBeginning: boolean;
}

/** Shortest word that also finds longer words beginning with it; shorter ones would find half of everything. */
const SHORTEST_BEGINNING = 3;

const quoted = (word: string) => `'${word.replaceAll("'", "''")}'`;

/**
 * What is looked for as a PostgreSQL text search question: every word, or the words that may stand for it. Words are
 * quoted, so nothing typed can change the question.
 */
export function findQuestion(words: readonly Sought[]): string {
	return words
		.map(({ word, instead, asBeginning }) => {
			const typed = asBeginning && word.length >= SHORTEST_BEGINNING ? `${quoted(word)}:*` : quoted(word);
			return `(${[typed, ...instead.map(quoted)].join(' | ')})`;
		})
		.join(' & ');
}

/**
 * How many typing errors lie between two words: letters left out, added, changed, or two neighbours swapped. This is
 * the optimal string alignment distance (Damerau 1964; each place is edited once).
 */
export function typingErrors(a: string, b: string): number {
	let [older, before] = [[] as number[], Array.from({ length: b.length + 1 }, (_, j) => j)];
	for (let i = 1; i <= a.length; i++) {
		const row = [i];
		for (let j = 1; j <= b.length; j++) {
			const same = a[i - 1] === b[j - 1] ? 0 : 1;
			let least = Math.min(before[j]! + 1, row[j - 1]! + 1, before[j - 1]! + same);
			if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
				least = Math.min(least, older[j - 2]! + 1);
			row.push(least);
		}
		[older, before] = [before, row];
	}
	return before[b.length]!;
}

/** The known words that somebody may have meant: those with the fewest typing errors, at most one in four letters. */
export function meantWords(word: string, known: readonly string[]): string[] {
	const most = word.length < 4 ? 1 : Math.max(1, Math.floor(word.length / 4));
	const near = known.map((one) => ({ one, errors: typingErrors(word, one) }));
	const fewest = Math.min(...near.map((n) => n.errors));
	return fewest > most ? [] : near.filter((n) => n.errors === fewest).map((n) => n.one);
}
