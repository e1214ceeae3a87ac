/** How people are told apart in a live document; always beside their names, never instead. */
const COLOURS = ['#0b6b58', '#6a4aa3', '#2c5d8f', '#945500', '#b3311f', '#2f6f3a', '#8a3d6d', '#4d5b9e'];

/** The colour of a person, always the same for the same person. */
export function colourOf(id: string): string {
	let sum = 0;
	for (const letter of id) sum = (sum * 31 + letter.charCodeAt(0)) >>> 0;
	return COLOURS[sum % COLOURS.length]!;
}
