import { Unreadable } from './unreadable';

const TAGS: Record<string, string> = {
	'text:p': 'p',
	'text:list-item': 'li',
	'table:table': 'table',
	'table:table-row': 'tr'
};
const LEFT_OUT = new Set([
	'office:annotation',
	'text:tracked-changes',
	'text:sequence-decls',
	'table:covered-table-cell',
	'text:note',
	'svg:title',
	'svg:desc'
]);

const escape = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** Reads OpenDocument text (OASIS ODF 1.3, part 3) as HTML: headings, lists, tables, looks of words, links, pictures. */
class OdtReader {
	/** Tags that a style of words stands for, by its name. */
	private readonly looks = new Map<string, string[]>();
	/** Names of list styles that count. */
	private readonly counting = new Set<string>();
	/** Names of paragraph styles that begin a page. */
	private readonly breaks = new Set<string>();
	private readonly captions = new Set(['Caption', 'Figure', 'Table', 'Illustration', 'Drawing']);

	constructor(
		styles: Element,
		private readonly picture: (path: string) => string | null
	) {
		for (const style of styles.getElementsByTagName('style:style')) {
			const name = style.getAttribute('style:name') ?? '';
			const look = style.getElementsByTagName('style:text-properties')[0];
			if (look && style.getAttribute('style:family') === 'text') this.looks.set(name, looksOf(look));
			const paragraph = style.getElementsByTagName('style:paragraph-properties')[0];
			if (paragraph?.getAttribute('fo:break-before') === 'page') this.breaks.add(name);
			if (this.captions.has(style.getAttribute('style:parent-style-name') ?? '')) this.captions.add(name);
		}
		for (const list of styles.getElementsByTagName('text:list-style'))
			if (list.firstElementChild?.nodeName === 'text:list-level-style-number')
				this.counting.add(list.getAttribute('style:name') ?? '');
	}

	html(node: Node, list = 'ul'): string {
		if (node.nodeType === Node.TEXT_NODE) return escape(node.nodeValue ?? '');
		if (!(node instanceof Element)) return '';
		const name = node.nodeName;
		const style = node.getAttribute('text:style-name') ?? '';
		if (LEFT_OUT.has(name)) return '';
		if (name === 'text:s') return ' '.repeat(Math.min(100, Number(node.getAttribute('text:c')) || 1));
		if (name === 'text:tab') return '\t';
		if (name === 'text:line-break') return '<br>';
		if (name === 'draw:image') {
			const source = this.picture(node.getAttribute('xlink:href') ?? '');
			return source ? `<img src="${source}" alt="">` : '';
		}
		const kind = name === 'text:list' ? (style ? (this.counting.has(style) ? 'ol' : 'ul') : list) : list;
		const inside = [...node.childNodes].map((child) => this.html(child, kind)).join('');
		switch (name) {
			case 'text:h': {
				const level = Math.min(6, Math.max(1, Number(node.getAttribute('text:outline-level')) || 1));
				return `<h${level}>${inside}</h${level}>`;
			}
			case 'text:p': {
				const begins = this.breaks.has(style) ? '<hr>' : '';
				if (this.captions.has(style)) return `${begins}<figcaption>${inside}</figcaption>`;
				return begins && !inside ? begins : `${begins}<p>${inside}</p>`;
			}
			case 'text:span':
				return (this.looks.get(style) ?? []).reduce((said, tag) => `<${tag}>${said}</${tag}>`, inside);
			case 'text:a':
				return `<a href="${escape(node.getAttribute('xlink:href') ?? '')}">${inside}</a>`;
			case 'text:list':
				return `<${kind}>${inside}</${kind}>`;
			case 'table:table-cell': {
				const span = (of: string) => Number(node.getAttribute(`table:number-${of}-spanned`)) || 1;
				return `<td colspan="${span('columns')}" rowspan="${span('rows')}">${inside}</td>`;
			}
			default: {
				const tag = TAGS[name];
				return tag ? `<${tag}>${inside}</${tag}>` : inside;
			}
		}
	}
}

function looksOf(look: Element): string[] {
	const has = (name: string, value: RegExp) => value.test(look.getAttribute(name) ?? '');
	const found: [boolean, string][] = [
		[has('fo:font-weight', /bold|[6-9]00/), 'strong'],
		[has('fo:font-style', /italic|oblique/), 'em'],
		[has('style:text-underline-style', /^(?!none).+/), 'u'],
		[has('style:text-line-through-style', /^(?!none).+/), 's'],
		[has('style:text-position', /^super/), 'sup'],
		[has('style:text-position', /^(sub|-)/), 'sub']
	];
	return found.filter(([yes]) => yes).map(([, tag]) => tag);
}

/** Most bytes of one picture inside a text. */
const MOST_PICTURE = 20e6;

/** Reads an ODT file as HTML. Raises {@link Unreadable} when it holds no text. */
export async function readOdt(bytes: ArrayBuffer): Promise<string> {
	const { unzipSync, strFromU8 } = await import('fflate');
	const parts = unzipSync(new Uint8Array(bytes), {
		filter: (f) =>
			f.name === 'content.xml' || (f.name.startsWith('Pictures/') && f.originalSize < MOST_PICTURE)
	});
	const entry = parts['content.xml'];
	const xml = entry && new DOMParser().parseFromString(strFromU8(entry), 'application/xml');
	const body = xml?.getElementsByTagName('office:text')[0];
	if (!xml || !body) throw new Unreadable('This file has no content that can be read.');
	const reader = new OdtReader(xml.documentElement, (path) => {
		const picture = parts[path];
		const kind = /\.(png|jpe?g|gif|webp)$/i.exec(path)?.[1]?.toLowerCase();
		if (!picture || !kind) return null;
		let binary = '';
		for (let i = 0; i < picture.length; i += 32_768)
			binary += String.fromCharCode(...picture.subarray(i, i + 32_768));
		return `data:image/${kind === 'jpg' ? 'jpeg' : kind};base64,${btoa(binary)}`;
	});
	return reader.html(body);
}
