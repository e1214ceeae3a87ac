import { numberOf, valueOf, type Group } from './read';
import type { Text } from './sheet';

/** Text of TEXT and attributes: %% codes and \U+XXXX resolved. */
export function plainText(raw: string): string {
	return raw
		.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
		.replace(/%%[dD]/g, '°')
		.replace(/%%[pP]/g, '±')
		.replace(/%%[cC]/g, '⌀')
		.replace(/%%[uUoOkK]/g, '')
		.replace(/%%%/g, '%');
}

/** Lines of MTEXT with its inline codes taken out. */
export function multilineText(raw: string): string[] {
	return plainText(raw)
		.replace(/\\S([^;^#/]*)[\^#/]([^;]*);/g, '$1/$2')
		.replace(/\\[ACcFfHhQTWpx][^;\\{}]*;/g, '')
		.replace(/\\[LlOoKk]/g, '')
		.replace(/\\~/g, ' ')
		.split(/\\[PNX]|\^J/)
		.map((line) =>
			line
				.replace(/(?<!\\)[{}]/g, '')
				.replace(/\\([\\{}])/g, '$1')
				.trim()
		);
}

/** The words of an MTEXT with its inline codes; long ones are cut into pieces (3), the rest of them last (1). */
export const multilineRaw = (g: readonly Group[]): string =>
	g
		.filter(([code]) => code === 3 || code === 1)
		.map(([, value]) => value)
		.join('');

/** Where a text of one line stands (TEXT, ATTRIB, ATTDEF), in the units it is given in. */
export function placedText(
	g: readonly Group[],
	raw: string
): Pick<Text, 'x' | 'y' | 'height' | 'turn' | 'text' | 'alignX' | 'alignY' | 'wide' | 'slant'> {
	const across = numberOf(g, 72);
	const up = numberOf(g, 73, numberOf(g, 74));
	const aligned = across !== 0 || up !== 0;
	const at = aligned && valueOf(g, 11) !== null ? 11 : 10;
	return {
		x: numberOf(g, at),
		y: numberOf(g, at + 10),
		height: numberOf(g, 40, 1),
		turn: (numberOf(g, 50) * Math.PI) / 180,
		text: plainText(raw),
		alignX: across === 1 || across === 4 ? 0.5 : across === 2 ? 1 : 0,
		alignY: across === 4 || up === 2 ? 0.5 : up === 3 ? 1 : 0,
		...lettersOf(g)
	};
}

/** Width factor (41) and oblique angle (51) of a text, within what can still be read. */
export function lettersOf(g: readonly Group[]): { wide: number; slant: number } {
	const wide = numberOf(g, 41, 1);
	const degrees = ((numberOf(g, 51) + 180) % 360) - 180;
	return {
		wide: wide > 0.05 && wide < 20 ? wide : 1,
		slant: Math.abs(degrees) <= 85 ? (degrees * Math.PI) / 180 : 0
	};
}
