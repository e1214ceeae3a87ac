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

const styleOf = (element: Element) => element.getAttribute('text:style-name') ?? '';

/** How words look, as far as a style says it. */
interface Look {
	strong?: boolean;
	em?: boolean;
	u?: boolean;
	s?: boolean;
	script?: 'sup' | 'sub' | null;
}
const TAGS_OF_LOOK = ['strong', 'em', 'u', 's'] as const;

function lookOf(properties: Element): Look {
	const look: Look = {};
	const says = (name: string, tell: (value: string) => void) => {
		const value = properties.getAttribute(name);
		if (value) tell(value);
	};
	says('fo:font-weight', (value) => (look.strong = /bold|[6-9]00/.test(value)));
	says('fo:font-style', (value) => (look.em = /italic|oblique/.test(value)));
	says('style:text-underline-style', (value) => (look.u = value !== 'none'));
	says('style:text-line-through-style', (value) => (look.s = value !== 'none'));
	says('style:text-position', (value) => {
		const [, raised, lowered] = /^(super|[1-9])|^(sub|-)/.exec(value) ?? [];
		look.script = raised ? 'sup' : lowered ? 'sub' : null;
	});
	return look;
}

/** What styles say of what is written in them. A style that says nothing itself is as the one it derives from. */
class Styles {
	/** Looks of words, by the name of their style; of paragraphs only what was settled for them alone. */
	readonly looks = new Map<string, Look>();
	/** Levels on which list styles count, by their name. */
	private readonly counting = new Map<string, Set<number>>();
	/** Names of paragraph styles that begin a page. */
	readonly breaks = new Set<string>();
	/** Width of the text on its page, in points; NaN when the file does not say. */
	readonly textWidth: number = NaN;
	private readonly parents = new Map<string, string>();

	/**
	 * @param named the document of the styles that have names
	 * @param content the document of the text, with what was settled at single places
	 */
	constructor(named: Document | null, content: Document) {
		for (const document of named ? [named, content] : [content]) {
			for (const style of document.getElementsByTagName('style:style')) {
				const name = style.getAttribute('style:name') ?? '';
				this.parents.set(name, style.getAttribute('style:parent-style-name') ?? '');
				const properties = style.getElementsByTagName('style:text-properties')[0];
				const family = style.getAttribute('style:family');
				if (properties && (family === 'text' || (family === 'paragraph' && document === content)))
					this.looks.set(name, lookOf(properties));
				const paragraph = style.getElementsByTagName('style:paragraph-properties')[0];
				if (paragraph?.getAttribute('fo:break-before') === 'page') this.breaks.add(name);
			}
			for (const list of document.getElementsByTagName('text:list-style'))
				this.counting.set(
					list.getAttribute('style:name') ?? '',
					new Set(
						[...list.getElementsByTagName('text:list-level-style-number')]
							// A level without a form of its numbers shows none.
							.filter((level) => level.getAttribute('style:num-format') !== '')
							.map((level) => Number(level.getAttribute('text:level')))
					)
				);
			const page = [...document.getElementsByTagName('style:page-layout-properties')].find((layout) =>
				layout.hasAttribute('fo:page-width')
			);
			if (page) {
				const margin = (side: string) =>
					points(page.getAttribute(`fo:margin-${side}`) ?? page.getAttribute('fo:margin')) || 0;
				this.textWidth = points(page.getAttribute('fo:page-width')) - margin('left') - margin('right');
			}
		}
	}

	/** Whether a list of a style counts on a level, from one. */
	counts(style: string, level: number): boolean {
		return this.counting.get(style)?.has(level) ?? false;
	}

	/** The level of a heading, from one; 0 for what is none. Some programs write headings as paragraphs of that style. */
	headingLevel(element: Element): number {
		if (element.nodeName === 'text:h')
			return Math.min(6, Math.max(1, Number(element.getAttribute('text:outline-level')) || 1));
		if (element.nodeName !== 'text:p') return 0;
		return [1, 2, 3, 4, 5, 6].find((level) => this.is(styleOf(element), `Heading_20_${level}`)) ?? 0;
	}

	/** Whether a style is one of some, or derives from one. */
	is(style: string, ...names: string[]): boolean {
		for (let name = style, i = 0; name && i < 20; name = this.parents.get(name) ?? '', i++)
			if (names.includes(name)) return true;
		return false;
	}
}

/** Where in a text a reader is: the kind of list around, and how words look so far. */
interface Around {
	/** Style of the list around, and how many lists are. */
	list: string;
	depth: number;
	look: Look;
	linked: boolean;
}

const OUTSIDE: Around = { list: '', depth: 0, look: {}, linked: false };

const isList = (element: Element | null | undefined): element is Element => element?.nodeName === 'text:list';

/** A list within an item that holds nothing else: the item only makes what is in it one deeper. */
const deeper = (item: Element): Element | null =>
	item.childElementCount === 1 && isList(item.firstElementChild) ? item.firstElementChild : null;

/** Puts the items of a list, which lies so deep within another, where they belong in the list before that other. */
function putDeep(before: Element, depth: number, list: Element, style: string): void {
	let [place, placeStyle] = [before, styleOf(before)];
	for (let at = 0; at < depth; at++) {
		const item = place.lastElementChild!;
		const inner = item.lastElementChild;
		if (!isList(inner) || (at === depth - 1 && (styleOf(inner) || placeStyle) !== style)) {
			list.setAttribute('text:style-name', style);
			item.append(list);
			return;
		}
		[place, placeStyle] = [inner, styleOf(inner) || placeStyle];
	}
	place.append(...list.childNodes);
}

/**
 * Puts lists together that a word processor has written one after the other, where one has another within it: the inner
 * one as a list of its own with empty items around, and the rest of the outer one as a list that goes on (ODF 1.3,
 * part 3, 5.3).
 */
function joinLists(body: Element): void {
	/** Lists that another was put into; what follows them in their style is the rest of them. */
	const joined = new Set<Element>();
	for (const list of [...body.getElementsByTagName('text:list')]) {
		const before = list.previousElementSibling;
		if (!isList(before) || !before.lastElementChild) continue;
		const goesOn =
			styleOf(list) === styleOf(before) &&
			(joined.has(before) ||
				list.hasAttribute('text:continue-list') ||
				list.getAttribute('text:continue-numbering') === 'true');
		for (let item = list.firstElementChild; item; item = list.firstElementChild) {
			let [inner, depth, style] = [deeper(item), 0, styleOf(list)];
			if (!inner && !goesOn && item.getAttribute('text:style-override') !== styleOf(before)) break;
			if (!inner) before.append(item);
			else {
				for (
					let next: Element | null = inner;
					next;
					next = next.firstElementChild && deeper(next.firstElementChild)
				)
					[inner, depth, style] = [next, depth + 1, styleOf(next) || style];
				item.remove();
				joined.add(before);
				putDeep(before, depth, inner, style);
			}
		}
		if (!list.firstElementChild) list.remove();
	}
}

/** Headings that are numbered as a list is are headings all the same, whose numbers are worked out. */
function freeHeadings(body: Element, styles: Styles): void {
	for (const heading of [...body.querySelectorAll('*')]) {
		if (!styles.headingLevel(heading)) continue;
		let around = heading.parentElement;
		while (around?.nodeName === 'text:list-item' && isList(around.parentElement)) {
			const list = around.parentElement;
			list.before(heading);
			if (!around.childElementCount) around.remove();
			if (!list.childElementCount) list.remove();
			around = heading.parentElement;
		}
	}
}

function wrapped(words: string, look: Look): string {
	let said = words;
	if (!said) return said;
	if (look.script) said = `<${look.script}>${said}</${look.script}>`;
	for (const tag of TAGS_OF_LOOK) if (look[tag]) said = `<${tag}>${said}</${tag}>`;
	return said;
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
		freeHeadings(body, this.styles);
		joinLists(body);
		const said = this.node(body, OUTSIDE);
		const notes = this.notes.map((note, i) => `<li id="footnote-${i + 1}">${note}</li>`).join('');
		return notes ? `${said}<ol>${notes}</ol>` : said;
	}

	private node(node: Node, around: Around): string {
		if (node.nodeType === Node.TEXT_NODE) return wrapped(escape(node.nodeValue ?? ''), around.look);
		if (!(node instanceof Element)) return '';
		const name = node.nodeName;
		const style = node.getAttribute('text:style-name') ?? '';
		if (LEFT_OUT.has(name)) return '';
		if (name === 'text:s') {
			const blanks = ' '.repeat(Math.min(100, Number(node.getAttribute('text:c')) || 1));
			return wrapped(blanks, around.look);
		}
		if (name === 'text:tab') return '\t';
		if (name === 'text:line-break') return '<br>';
		if (name === 'draw:image') return this.image(node);
		const within = this.within(node, name, style, around);
		const inside = [...node.childNodes].map((child) => this.node(child, within)).join('');
		switch (name) {
			case 'text:h':
			case 'text:p': {
				const begins = this.styles.breaks.has(style) ? '<hr>' : '';
				const level = this.styles.headingLevel(node);
				if (level) return `${begins}<h${level}>${inside}</h${level}>`;
				if (this.styles.is(style, 'Title')) return `${begins}<h1>${inside}</h1>`;
				if (this.styles.is(style, 'Caption')) return `${begins}<figcaption>${inside}</figcaption>`;
				return begins && !inside ? begins : `${begins}<p>${inside}</p>`;
			}
			case 'text:a':
				return `<a href="${escape(node.getAttribute('xlink:href') ?? '')}">${inside}</a>`;
			case 'text:note': {
				const at = this.notes.push(inside);
				return `<sup><a href="#footnote-${at}">[${at}]</a></sup>`;
			}
			case 'text:list': {
				const kind = this.styles.counts(within.list, within.depth) ? 'ol' : 'ul';
				return `<${kind}>${inside}</${kind}>`;
			}
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

	/** How things are within an element. */
	private within(node: Element, name: string, style: string, around: Around): Around {
		if (name === 'text:list') return { ...around, list: style || around.list, depth: around.depth + 1 };
		if (name === 'table:table') return { ...around, list: '', depth: 0 };
		if (name === 'text:note') return OUTSIDE;
		if (name === 'text:a') return { ...around, linked: true };
		const look = this.styles.looks.get(style);
		if (name === 'text:p' || name === 'text:h') return { ...around, look: look ?? {} };
		if (name !== 'text:span' || !look) return around;
		const made = { ...around.look, ...look };
		// That a link is underlined is how links look.
		if (around.linked || node.getElementsByTagName('text:a').length) delete made.u;
		return { ...around, look: made };
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
	const reader = new OdtReader(new Styles(styles ?? null, content), (path) => {
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
