import { freeHeadings, joinLists } from './odt-lists';
import { points, Styles, styleOf, type Look } from './odt-styles';
import { Unreadable } from '../../formats/package/fault';

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
const escape = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

const TAGS_OF_LOOK = ['strong', 'em', 'u', 's'] as const;

/** Where in a text a reader is: the kind of list around, and how words look so far. */
interface Around {
	/** Style of the list around, and how many lists are. */
	list: string;
	depth: number;
	look: Look;
	linked: boolean;
}

const OUTSIDE: Around = { list: '', depth: 0, look: {}, linked: false };

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
		const style = styleOf(node);
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
			(cell.firstElementChild !== null && this.styles.is(styleOf(cell.firstElementChild), 'Table_20_Heading'))
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
	/** What stands above or below the pages; pages of several kinds often say the same. */
	const around = (tag: 'header' | 'footer') => {
		const parts = [...(styles?.querySelectorAll('*') ?? [])]
			.filter((element) => element.nodeName === `style:${tag}`)
			.map((element) => reader.html(element));
		const said = [...new Set(parts)].filter((html) => html.replace(/<(?!img)[^>]*>|\s/g, '') !== '').join('');
		return said ? `<${tag}>${said}</${tag}>` : '';
	};
	return around('header') + reader.html(body) + around('footer');
}
