import type { PageViewport } from 'pdfjs-dist';
import type { TextItem, TextMarkedContent } from 'pdfjs-dist/types/src/display/api';

/** A place where words were found, in sheet units of its page with y downward. */
export interface Hit {
	page: number;
	query: string;
	x: number;
	y: number;
	w: number;
	h: number;
}

export interface PageText {
	items: (TextItem | TextMarkedContent)[];
	viewport: PageViewport;
}

/** Places of a page whose text holds the words, whatever the case. A run of text is searched as one. */
export function findInPage({ items, viewport }: PageText, query: string, page: number): Hit[] {
	const wanted = query.trim().toLowerCase();
	if (!wanted) return [];
	const hits: Hit[] = [];
	for (const item of items) {
		if (!('str' in item)) continue;
		const text = item.str.toLowerCase();
		for (let at = text.indexOf(wanted); at >= 0; at = text.indexOf(wanted, at + 1)) {
			const [a, b, , , e, f] = item.transform as [number, number, number, number, number, number];
			const turn = Math.atan2(b, a);
			const start = (at / text.length) * item.width;
			const width = (wanted.length / text.length) * item.width;
			const corner = (along: number, up: number) =>
				viewport.convertToViewportPoint(
					e + Math.cos(turn) * along - Math.sin(turn) * up,
					f + Math.sin(turn) * along + Math.cos(turn) * up
				) as [number, number];
			const corners = [
				corner(start, 0),
				corner(start + width, 0),
				corner(start, item.height),
				corner(start + width, item.height)
			];
			const xs = corners.map((c) => c[0]);
			const ys = corners.map((c) => c[1]);
			hits.push({
				page,
				query,
				x: Math.min(...xs),
				y: Math.min(...ys),
				w: Math.max(...xs) - Math.min(...xs),
				h: Math.max(...ys) - Math.min(...ys)
			});
		}
	}
	return hits;
}
