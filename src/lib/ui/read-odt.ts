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
	'text:note-citation',
	'table:covered-table-cell',
	'svg:title',
	'svg:desc'
]);
/** Points in the units that lengths are given in. */
const POINTS: Record<string, number> = { pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, px: 0.75, pc: 12 };

const escape = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** A length in points; NaN for what is none. */
function points(length: string | null): number {
	const [, value, unit] = /^(-?[\d.]+)(pt|in|cm|mm|px|pc)$/.exec(length ?? '') ?? [];
	return unit ? Number(value) * POINTS[unit]! : NaN;
}

/** What styles say of what is written in them. A style that says nothing itself is as the one it derives from. */
class Styles {
	/** Tags that a style of words stands for, by its name. */
	readonly looks = new Map<string, string[]>();
	/** Names of list styles that count. */
	readonly counting = new Set<string>();
	/** Names of paragraph styles that begin a page. */
	readonly breaks = new Set<string>();
	/** Width of the text on its page, in points; NaN when the file does not say. */
	readonly textWidth: number = NaN;
	private readonly parents = new Map<string, string>();

	constructor(documents: readonly Document[]) {
		for (const document of documents) {
			for (const style of document.getElementsByTagName('style:style')) {
				const name = style.getAttribute('style:name') ?? '';
				this.parents.set(name, style.getAttribute('style:parent-style-name') ?? '');
				const look = style.getElementsByTagName('style:text-properties')[0];
				if (look && style.getAttribute('style:family') === 'text') this.looks.set(name, looksOf(look));
				const paragraph = style.getElementsByTagName('style:paragraph-properties')[0];
				if (paragraph?.getAttribute('fo:break-before') === 'page') this.breaks.add(name);
			}
			for (const list of document.getElementsByTagName('text:list-style'))
				if (list.firstElementChild?.nodeName === 'text:list-level-style-number')
					this.counting.add(list.getAttribute('style:name') ?? '');
			const page = document.getElementsByTagName('style:page-layout-properties')[0];
			if (page) {
				const margin = (side: string) =>
					points(page.getAttribute(`fo:margin-${side}`) ?? page.getAttribute('fo:margin')) || 0;
				this.textWidth = points(page.getAttribute('fo:page-width')) - margin('left') - margin('right');
			}
		}
	}

	/** Whether a style is one of some, or derives from one. */
	is(style: string, ...names: string[]): boolean {
		for (let name = style, i = 0; name && i < 20; name = this.parents.get(name) ?? '', i++)
			if (names.includes(name)) return true;
		return false;
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

/** Reads OpenDocument text (OASIS ODF 1.3, part 3) as HTML: headings, lists, tables, looks of words, links, pictures. */
class OdtReader {
	/** Footnotes and endnotes, as they came. */
	private readonly notes: string[] = [];

	constructor(
		private readonly styles: Styles,
		private readonly picture: (path: string) => string | null
	) {}

	html(body: Element): string {
		const said = this.node(body);
		const notes = this.notes.map((note, i) => `<li id="footnote-${i + 1}">${note}</li>`).join('');
		return notes ? `${said}<ol>${notes}</ol>` : said;
	}

	private node(node: Node, list = 'ul'): string {
		if (node.nodeType === Node.TEXT_NODE) return escape(node.nodeValue ?? '');
		if (!(node instanceof Element)) return '';
		const name = node.nodeName;
		const style = node.getAttribute('text:style-name') ?? '';
		if (LEFT_OUT.has(name)) return '';
		if (name === 'text:s') return ' '.repeat(Math.min(100, Number(node.getAttribute('text:c')) || 1));
		if (name === 'text:tab') return '\t';
		if (name === 'text:line-break') return '<br>';
		if (name === 'draw:image') return this.image(node);
		const counts = this.styles.counting;
		const kind = name === 'text:list' ? (style ? (counts.has(style) ? 'ol' : 'ul') : list) : list;
		const inside = [...node.childNodes].map((child) => this.node(child, kind)).join('');
		switch (name) {
			case 'text:h': {
				const level = Math.min(6, Math.max(1, Number(node.getAttribute('text:outline-level')) || 1));
				return `<h${level}>${inside}</h${level}>`;
			}
			case 'text:p': {
				const begins = this.styles.breaks.has(style) ? '<hr>' : '';
				if (this.styles.is(style, 'Title')) return `${begins}<h1>${inside}</h1>`;
				if (this.styles.is(style, 'Caption')) return `${begins}<figcaption>${inside}</figcaption>`;
				return begins && !inside ? begins : `${begins}<p>${inside}</p>`;
			}
			case 'text:span':
				return (this.styles.looks.get(style) ?? []).reduce((said, tag) => `<${tag}>${said}</${tag}>`, inside);
			case 'text:a':
				return `<a href="${escape(node.getAttribute('xlink:href') ?? '')}">${inside}</a>`;
			case 'text:note': {
				const at = this.notes.push(inside);
				return `<sup><a href="#footnote-${at}">[${at}]</a></sup>`;
			}
			case 'text:list':
				return `<${kind}>${inside}</${kind}>`;
			case 'table:table-cell': {
				const span = (of: string) => Number(node.getAttribute(`table:number-${of}-spanned`)) || 1;
				const tag = this.isHead(node) ? 'th' : 'td';
				return `<${tag} colspan="${span('columns')}" rowspan="${span('rows')}">${inside}</${tag}>`;
			}
			default: {
				const tag = TAGS[name];
				return tag ? `<${tag}>${inside}</${tag}>` : inside;
			}
		}
	}

	/** Whether a cell heads its column or row. */
	private isHead(cell: Element): boolean {
		return (
			cell.parentElement?.parentElement?.nodeName === 'table:table-header-rows' ||
			this.styles.is(cell.firstElementChild?.getAttribute('text:style-name') ?? '', 'Table_20_Heading')
		);
	}

	private image(image: Element): string {
		const source = this.picture(image.getAttribute('xlink:href') ?? '');
		if (!source) return '';
		const frame = image.parentElement;
		const said = (tag: string) => frame?.getElementsByTagName(tag)[0]?.textContent ?? '';
		const relative = /^(\d+)%$/.exec(frame?.getAttribute('style:rel-width') ?? '')?.[1];
		const share = relative
			? Number(relative)
			: Math.round((points(frame?.getAttribute('svg:width') ?? null) / this.styles.textWidth) * 100);
		const width = share > 0 ? ` data-width="${share}"` : '';
		return `<img src="${source}" alt="${escape(said('svg:title') || said('svg:desc'))}"${width}>`;
	}
}

/** Most bytes of one picture inside a text. */
const MOST_PICTURE = 20e6;

/** Reads an ODT file as HTML. Raises {@link Unreadable} when it holds no text. */
export async function readOdt(bytes: ArrayBuffer): Promise<string> {
	const { unzipSync, strFromU8 } = await import('fflate');
	const parts = unzipSync(new Uint8Array(bytes), {
		filter: (f) =>
			f.name === 'content.xml' ||
			f.name === 'styles.xml' ||
			(f.name.startsWith('Pictures/') && f.originalSize < MOST_PICTURE)
	});
	const [styles, content] = ['styles.xml', 'content.xml'].map((name) =>
		parts[name] ? new DOMParser().parseFromString(strFromU8(parts[name]), 'application/xml') : null
	);
	const body = content?.getElementsByTagName('office:text')[0];
	if (!content || !body) throw new Unreadable('This file has no content that can be read.');
	const reader = new OdtReader(new Styles(styles ? [styles, content] : [content]), (path) => {
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
