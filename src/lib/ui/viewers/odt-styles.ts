/* What the styles of an OpenDocument text say (OASIS ODF 1.3, part 3, chapters 16 and 17). */

/** Points in the units that lengths are given in. */
const POINTS: Record<string, number> = { pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, px: 0.75, pc: 12 };

/** A length in points; NaN for what is none. */
export function points(length: string | null): number {
	const [, value, unit] = /^(-?[\d.]+)(pt|in|cm|mm|px|pc)$/.exec(length ?? '') ?? [];
	return unit ? Number(value) * POINTS[unit]! : NaN;
}

export const styleOf = (element: Element) => element.getAttribute('text:style-name') ?? '';

/** How words look, as far as a style says it. */
export interface Look {
	strong?: boolean;
	em?: boolean;
	u?: boolean;
	s?: boolean;
	script?: 'sup' | 'sub' | null;
}

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
export class Styles {
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
