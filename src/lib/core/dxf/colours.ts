/** Rows of the standard colour index used in practice; others go by the hue rule below. */
const BASIC: Record<number, number> = {
	1: 0xff0000,
	2: 0xb8a000,
	3: 0x00a000,
	4: 0x009aa8,
	5: 0x0000ff,
	6: 0xc000c0,
	8: 0x808080,
	9: 0xa8a8a8
};

/** Colour of an index: 7 is ink, 10 to 249 run through 24 hues in ten shades, 250 to 255 are greys. */
export function indexColour(index: number): number {
	if (index === 7 || index === 0 || index > 255 || index < 0) return -1;
	const basic = BASIC[index];
	if (basic !== undefined) return basic;
	if (index >= 250) {
		const grey = 0x33 + (index - 250) * 0x22;
		return (grey << 16) | (grey << 8) | grey;
	}
	const hue = Math.floor(index / 10 - 1) * 15;
	const shade = [1, 1, 0.65, 0.65, 0.5, 0.5, 0.3, 0.3, 0.15, 0.15][index % 10]!;
	const pale = index % 2 === 1 ? 0.5 : 0;
	const channel = (offset: number) => {
		const k = (offset + hue / 60) % 6;
		const full = Math.max(0, Math.min(1, Math.min(k, 4 - k)));
		return Math.round(255 * shade * (1 - (1 - pale) * full));
	};
	return (channel(5) << 16) | (channel(3) << 8) | channel(1);
}
