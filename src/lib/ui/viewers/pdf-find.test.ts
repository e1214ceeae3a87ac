import type { PageViewport } from 'pdfjs-dist';
import { describe, expect, it } from 'vitest';
import { findInPage, type PageText } from './pdf-find';

/** An upright page of A4 in points; places are counted from its top. */
const viewport = {
	convertToViewportPoint: (x: number, y: number) => [x, 842 - y]
} as unknown as PageViewport;
const run = (str: string, transform: number[], width: number, height = 10) =>
	({ str, transform, width, height, dir: 'ltr', fontName: 'f', hasEOL: false }) as PageText['items'][number];
const upright = (x: number, y: number) => [10, 0, 0, 10, x, y];

describe('finding words on a page', () => {
	it('gives where in a run they stand, whatever the case, and each time', () => {
		const items = [run('Linkspan and linkspan', upright(100, 700), 210)];
		const hits = findInPage({ items, viewport }, ' LINKSPAN ', 3);
		expect(hits).toHaveLength(2);
		expect(hits[0]).toMatchObject({ page: 3, x: 100, y: 132, w: 80, h: 10 });
		expect(hits[1]).toMatchObject({ x: 230, w: 80 });
	});

	it('finds words that overlap', () => {
		const items = [run('anana', upright(0, 0), 50)];
		expect(findInPage({ items, viewport }, 'ana', 1).map((hit) => hit.x)).toEqual([0, 20]);
	});

	it('stands upright around words that stand on their side', () => {
		const items = [run('quay', [0, 10, -10, 0, 50, 100], 40)];
		const [hit] = findInPage({ items, viewport }, 'quay', 1);
		expect([hit!.x, hit!.y, hit!.w, hit!.h].map(Math.round)).toEqual([40, 702, 10, 40]);
	});

	it('finds nothing for nothing, and passes over what is no text', () => {
		const items = [{ type: 'beginMarkedContent', id: 'a', tag: 'P' } as PageText['items'][number]];
		expect(findInPage({ items, viewport }, '  ', 1)).toEqual([]);
		expect(findInPage({ items, viewport }, 'quay', 1)).toEqual([]);
	});
});
