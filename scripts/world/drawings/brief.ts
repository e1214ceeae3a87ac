/**
 * What a drawing of the terminal is made of. `edit` counts the versions: each one changes something that a
 * reviewer would find (a wall moved, a length changed, a detail or a note added).
 */
export interface Brief {
	seed: string;
	edit: number;
	/** Numbers of the sheets that it names. */
	see?: readonly string[];
	/** What the sheet is called; says which of its kind it is. */
	title: string;
}

/** Whether a title has a word in it. */
export const names = (title: string, word: string) => title.toLowerCase().includes(word);

/** The first of some words that a title has in it, with what belongs to it; the last where it has none. */
export function byTitle<T>(title: string, choices: readonly (readonly [word: string, of: T])[]): T {
	return (choices.find(([word]) => names(title, word)) ?? choices.at(-1)!)[1];
}
