/** Words out of marked-up text, and back. */

/** Most bytes of one part of an office file, or of a plain text, that are read. */
export const MOST_READ = 20_000_000;

/** Most characters of one file that are kept for finding: a manual of a thousand pages. */
export const MOST_WRITTEN = 3_000_000;

const escapeHtml = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** Lines as paragraphs of HTML; an empty one keeps its height. */
export const paragraphs = (lines: readonly string[]): string =>
	lines.map((line) => `<p>${escapeHtml(line) || '&#160;'}</p>`).join('');

/** Ends of paragraphs, cells and lines, after which a word ends too; other tags can stand within a word. */
const ENDS =
	/<(?:\/(?:w:p|w:tc|si|is|v|c|a:p|text:p|text:h|table:table-cell|p|div|li|td|th|tr|h\d)|(?:w:br|w:tab|br|text:line-break|text:tab|text:s)\b[^>]*)>/g;
const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };

/** The words of XML or HTML. */
export function withoutTags(xml: string): string {
	return xml
		.replace(/<(script|style)\b[\s\S]*?<\/\1>/gi, ' ')
		.replace(ENDS, ' ')
		.replace(/<[^>]*>/g, '')
		.replace(
			/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(\w{2,5}));/gi,
			(whole, tens?: string, hex?: string, name?: string) => {
				const code = tens ? Number(tens) : hex ? parseInt(hex, 16) : null;
				if (code === null) return NAMED[name!.toLowerCase()] ?? whole;
				return code > 0 && code <= 0x10ffff && (code < 0xd800 || code > 0xdfff)
					? String.fromCodePoint(code)
					: ' ';
			}
		);
}
