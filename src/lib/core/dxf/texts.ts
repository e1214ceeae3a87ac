import { numberOf, type Group } from './read';

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

/** Width factor (41) and oblique angle (51) of a text, within what can still be read. */
export function lettersOf(g: readonly Group[]): { wide: number; slant: number } {
	const wide = numberOf(g, 41, 1);
	const degrees = ((numberOf(g, 51) + 180) % 360) - 180;
	return {
		wide: wide > 0.05 && wide < 20 ? wide : 1,
		slant: Math.abs(degrees) <= 85 ? (degrees * Math.PI) / 180 : 0
	};
}
