/** A text as it is compared when people type it: without accents, case and double spaces. */
export function plain(text: string): string {
	return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/g, ' ').trim();
}

/** Whether every word of what was typed begins a word of a text; nothing typed fits everything. */
export function fits(typed: string, text: string): boolean {
	const words = plain(text).split(/[\s.@_/-]+/);
	return plain(typed)
		.split(/[\s.@_/-]+/)
		.every((part) => words.some((word) => word.startsWith(part)));
}
