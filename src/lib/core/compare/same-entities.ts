type Texts = readonly (string | null)[];

/**
 * What is left of two lists of texts without those that stand in both, each as often as it does. Nearly all of a drawing
 * reads the same in both, and need not be taken apart.
 * @param before, after null for what has to be taken apart whatever it reads
 * @returns places in the two lists
 */
export function withoutSame(before: Texts, after: Texts): { before: number[]; after: number[] } {
	const [metBefore, metAfter] = [new Uint8Array(before.length), new Uint8Array(after.length)];
	// Most stand where they stood, counted from one of the ends; the others are looked for.
	const more = after.length - before.length;
	for (const shift of more ? [0, more] : [0])
		for (let i = Math.max(0, -shift); i < before.length && i + shift < after.length; i++) {
			if (metBefore[i] || metAfter[i + shift] || before[i] === null) continue;
			if (before[i] === after[i + shift]) metBefore[i] = metAfter[i + shift] = 1;
		}
	const waiting = new Map<string, number[]>();
	before.forEach((text, at) => {
		if (text === null || metBefore[at]) return;
		const places = waiting.get(text);
		if (places) places.push(at);
		else waiting.set(text, [at]);
	});
	after.forEach((text, at) => {
		if (text === null || metAfter[at]) return;
		const place = waiting.get(text)?.pop();
		if (place !== undefined) metBefore[place] = metAfter[at] = 1;
	});
	const rest = (met: Uint8Array) => [...met.keys()].filter((at) => !met[at]);
	return { before: rest(metBefore), after: rest(metAfter) };
}
