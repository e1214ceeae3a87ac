/** What somebody wrote, as the end of a sentence: with one full stop, whether they wrote one or not. */
export function ended(text: string): string {
	const said = text.trim().replace(/[.\s]+$/, '');
	return /[?!…]$/.test(said) ? said : `${said}.`;
}

/** A count with its noun in the form that agrees: `1 version`, `2 versions`. */
export function plural(count: number, one: string, many = one + 's'): string {
	return `${count.toLocaleString('en')} ${count === 1 ? one : many}`;
}

/** A text of at most so many signs: cut off between words, and said to be. */
export function shortened(text: string, most: number): string {
	if (text.length <= most) return text;
	const cut = text.slice(0, most);
	const between = cut.lastIndexOf(' ');
	return `${(between > most / 2 ? cut.slice(0, between) : cut).replace(/[\s,;:.–-]+$/, '')}…`;
}
