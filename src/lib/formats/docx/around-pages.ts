import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { given } from './given';

const BODY = 'word/document.xml';
const RELATIONS = 'word/_rels/document.xml.rels';
/** Most parts that are read; each section has up to three headers and three footers of its own. */
const MOST_PARTS = 24;

/**
 * What stands above and below the pages of a DOCX file, as HTML; empty where nothing does. Headers that say the same
 * are given once.
 */
export async function aroundPages(bytes: ArrayBuffer): Promise<{ header: string; footer: string }> {
	const around = { header: '', footer: '' };
	const { [BODY]: body, [RELATIONS]: relations } = unzipSync(new Uint8Array(bytes), {
		filter: ({ name }) => name === BODY || name === RELATIONS
	});
	if (!body || !relations) return around;
	const targets = new Map<string, string>();
	for (const [tag] of strFromU8(relations).matchAll(/<Relationship\b[^>]*>/g)) {
		const said = (key: string) => new RegExp(`\\b${key}="([^"]*)"`).exec(tag)?.[1] ?? '';
		targets.set(said('Id'), said('Target').replace(/^\/?(word\/)?/, ''));
	}
	const wanted = new Map<string, 'header' | 'footer'>();
	for (const [, kind, id] of strFromU8(body).matchAll(
		/<w:(header|footer)Reference\b[^>]*\br:id="([^"]+)"/g
	)) {
		const part = targets.get(id!);
		if (part && wanted.size < MOST_PARTS) wanted.set(part, kind as 'header' | 'footer');
	}
	if (!wanted.size) return around;
	const parts = unzipSync(new Uint8Array(bytes));
	const said = new Set<string>();
	for (const [part, kind] of wanted) {
		const html = await partHtml(parts, part);
		const key = kind + html;
		if (html.replace(/<(?!img\b)[^>]*>|\s/g, '') === '' || said.has(key)) continue;
		said.add(key);
		around[kind] += html;
	}
	return around;
}

/** One such part as HTML: the reader knows the text only, so the part is given to it as the text. */
async function partHtml(parts: Record<string, Uint8Array>, part: string): Promise<string> {
	const xml = parts[`word/${part}`];
	if (!xml) return '';
	const within = /<w:(?:hdr|ftr)\b([^>]*)>([\s\S]*)<\/w:(?:hdr|ftr)>/.exec(strFromU8(xml));
	if (!within) return '';
	const relations = parts[`word/_rels/${part}.rels`];
	const { [RELATIONS]: _, ...others } = parts;
	const file = zipSync(
		{
			...others,
			[BODY]: strToU8(`<w:document${within[1]}><w:body>${within[2]}</w:body></w:document>`),
			...(relations ? { [RELATIONS]: relations } : {})
		},
		{ level: 0 }
	);
	const { default: mammoth } = await import('mammoth');
	return (await mammoth.convertToHtml(given(Uint8Array.from(file).buffer))).value;
}
