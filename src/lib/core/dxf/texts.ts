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
