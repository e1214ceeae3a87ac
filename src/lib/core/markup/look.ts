/** Every department has a colour and a pattern of stroke of its own, so that colour alone never tells them apart. */
const LOOKS = [
	{ colour: '#b3311f', dash: '' },
	{ colour: '#2c5d8f', dash: '6 2.5' },
	{ colour: '#6a4aa3', dash: '5 1.5 1.5 1.5' },
	{ colour: '#945500', dash: '8 2 1.5 2' },
	{ colour: '#0b6b58', dash: '3 3' },
	{ colour: '#8a3d6d', dash: '10 2 2 2 2 2' },
	{ colour: '#4d5b9e', dash: '12 3' }
] as const;
const OUTSIDE = { colour: '#55645d', dash: '2 4' };

export interface Look {
	colour: string;
	/** Lengths of strokes and gaps, in widths of the line. */
	dash: string;
}

/** The look of a department's marks. @param codes of all departments of the project, in their order */
export function lookOf(layer: string, codes: readonly string[]): Look {
	const at = codes.indexOf(layer);
	return at < 0 ? OUTSIDE : LOOKS[at % LOOKS.length]!;
}

/** A pattern for a line of a width. */
export function dashOf({ dash }: Look, width: number): string | undefined {
	return dash
		? dash
				.split(' ')
				.map((n) => Number(n) * width)
				.join(' ')
		: undefined;
}
