import { addSuggestionMarks } from '@handlewithcare/prosemirror-suggest-changes';
import { Schema, type MarkSpec, type NodeSpec } from 'prosemirror-model';
import { tableNodes } from 'prosemirror-tables';

/** Deepest heading that a text has. */
export const DEEPEST = 4;

const HASH = /^[0-9a-f]{64}$/;

/** Addresses that a link may lead to; anything else could run in the page. */
export function safeAddress(href: string): boolean {
	return /^(https?:\/\/|mailto:)[^\s<>"]{1,2000}$/i.test(href);
}

function must(held: unknown, fits: boolean, what: string): void {
	if (!fits) throw new RangeError(`${what} does not fit: ${String(held).slice(0, 80)}`);
}

const nodes: Record<string, NodeSpec> = {
	// Suggested changes may also concern whole blocks.
	doc: { content: 'block+', marks: 'insertion modification deletion' },
	paragraph: {
		group: 'block',
		content: 'inline*',
		parseDOM: [{ tag: 'p' }, { tag: 'pre' }],
		toDOM: () => ['p', 0]
	},
	heading: {
		group: 'block',
		content: 'inline*',
		attrs: { level: { default: 1, validate: 'number' } },
		defining: true,
		parseDOM: [1, 2, 3, 4, 5, 6].map((level) => ({
			tag: `h${level}`,
			attrs: { level: Math.min(level, DEEPEST) }
		})),
		toDOM: (node) => [`h${node.attrs.level as number}`, 0]
	},
	bullet_list: {
		group: 'block',
		content: 'list_item+',
		parseDOM: [{ tag: 'ul' }],
		toDOM: () => ['ul', 0]
	},
	ordered_list: {
		group: 'block',
		content: 'list_item+',
		parseDOM: [{ tag: 'ol' }],
		toDOM: () => ['ol', 0]
	},
	list_item: {
		content: 'paragraph block*',
		defining: true,
		parseDOM: [{ tag: 'li' }],
		toDOM: () => ['li', 0]
	},
	...tableNodes({
		tableGroup: 'block',
		cellContent: '(paragraph | bullet_list | ordered_list)+',
		cellAttributes: {}
	}),
	picture: {
		group: 'block',
		atom: true,
		draggable: true,
		attrs: {
			/** SHA-256 of the picture's bytes. */
			content: { validate: (value) => must(value, HASH.test(String(value)), 'A picture') },
			alt: { default: '', validate: 'string' },
			/** Share of the text's width, in percent. */
			width: { default: 100, validate: 'number' }
		},
		parseDOM: [
			{
				tag: 'img[data-content]',
				getAttrs: (dom) => {
					const content = dom.dataset.content ?? '';
					return HASH.test(content)
						? { content, alt: dom.getAttribute('alt') ?? '', width: Number(dom.dataset.width) || 100 }
						: false;
				}
			}
		],
		toDOM: ({ attrs }) => [
			'img',
			{
				'data-content': attrs.content as string,
				'data-width': String(attrs.width),
				alt: attrs.alt as string
			}
		]
	},
	caption: {
		group: 'block',
		content: 'inline*',
		attrs: { of: { default: 'figure', validate: 'string' } },
		defining: true,
		parseDOM: [
			{ tag: 'figcaption' },
			{ tag: 'p[data-caption]', priority: 60, getAttrs: (dom) => ({ of: dom.dataset.caption }) }
		],
		toDOM: (node) => ['p', { 'data-caption': node.attrs.of as string }, 0]
	},
	page_break: {
		group: 'block',
		atom: true,
		selectable: true,
		parseDOM: [{ tag: 'hr' }],
		toDOM: () => ['hr', { 'data-page-break': '' }]
	},
	text: { group: 'inline' },
	hard_break: {
		group: 'inline',
		inline: true,
		selectable: false,
		parseDOM: [{ tag: 'br' }],
		toDOM: () => ['br']
	},
	/** Another document of the project, by its number. */
	document_link: {
		group: 'inline',
		inline: true,
		atom: true,
		attrs: {
			document: { validate: (value) => must(value, /^[a-z0-9]{10}$/.test(String(value)), 'A document') },
			number: { validate: 'string' }
		},
		parseDOM: [
			{
				tag: 'a[data-document]',
				priority: 60,
				getAttrs: (dom) => ({ document: dom.dataset.document, number: dom.textContent ?? '' })
			}
		],
		toDOM: ({ attrs }) => ['a', { 'data-document': attrs.document as string }, attrs.number as string]
	}
};

const simple = (tag: string, ...also: string[]): MarkSpec => ({
	parseDOM: [tag, ...also].map((one) => ({ tag: one })),
	toDOM: () => [tag, 0]
});

const marks: Record<string, MarkSpec> = {
	strong: simple('strong', 'b'),
	em: simple('em', 'i'),
	underline: simple('u'),
	strike: simple('s', 'strike', 'del'),
	subscript: { ...simple('sub'), excludes: 'superscript' },
	superscript: { ...simple('sup'), excludes: 'subscript' },
	link: {
		attrs: { href: { validate: (value) => must(value, safeAddress(String(value)), 'A link') } },
		inclusive: false,
		parseDOM: [
			{
				tag: 'a[href]',
				getAttrs: (dom) => {
					const href = dom.getAttribute('href') ?? '';
					return safeAddress(href) ? { href } : false;
				}
			}
		],
		toDOM: (mark) => ['a', { href: mark.attrs.href as string, rel: 'noopener noreferrer nofollow' }, 0]
	},
	/** The passage that a remark is about. A mark stays with its words through splits and joins of paragraphs. */
	remark: {
		attrs: { id: { validate: 'string' } },
		inclusive: false,
		excludes: '',
		parseDOM: [],
		toDOM: (mark) => ['span', { 'data-remark': mark.attrs.id as string, class: 'remarked' }, 0]
	}
};

/** What a live text can hold. The editor, the server and every export speak of texts in these words. */
export const textSchema = new Schema({ nodes, marks: addSuggestionMarks(marks) });
