/**
 * What is left of two lists of numbers without those that stand in both, each as often as it does. Nearly all of a
 * drawing reads the same in both, and need not be taken apart.
 * @param before, after NaN for what has to be taken apart whatever it reads
 * @returns places in the two lists
 */
export function withoutSame(
	before: Float64Array,
	after: Float64Array
): { before: number[]; after: number[] } {
	const [metBefore, metAfter] = [new Uint8Array(before.length), new Uint8Array(after.length)];
	// Most stand where they stood, counted from one of the ends; the others are looked for.
	const more = after.length - before.length;
	for (const shift of more ? [0, more] : [0])
		for (let i = Math.max(0, -shift); i < before.length && i + shift < after.length; i++)
			if (!metBefore[i] && !metAfter[i + shift] && before[i] === after[i + shift])
				metBefore[i] = metAfter[i + shift] = 1;
	const waiting = new Map<number, number[]>();
	before.forEach((print, at) => {
		if (Number.isNaN(print) || metBefore[at]) return;
		const places = waiting.get(print);
		if (places) places.push(at);
		else waiting.set(print, [at]);
	});
	after.forEach((print, at) => {
		if (metAfter[at]) return;
		const place = waiting.get(print)?.pop();
		if (place !== undefined) metBefore[place] = metAfter[at] = 1;
	});
	const rest = (met: Uint8Array) => [...met.keys()].filter((at) => !met[at]);
	return { before: rest(metBefore), after: rest(metAfter) };
}
