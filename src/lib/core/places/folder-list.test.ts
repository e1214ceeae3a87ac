import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readFolderList } from './folder-list';

const ways = (text: string) => readFolderList(text).ways?.map((way) => way.join(' > '));

describe('a written tree of folders', () => {
	it('is read by how far its lines are indented, with spaces or tabs', () => {
		expect(ways('Drawings\n  General\n  Details\n    Piles\nCalculations')).toEqual([
			'Drawings',
			'Drawings > General',
			'Drawings > Details',
			'Drawings > Details > Piles',
			'Calculations'
		]);
		expect(ways('Drawings\r\n\tGeneral\r\n\r\n- Calculations')).toEqual([
			'Drawings',
			'Drawings > General',
			'Calculations'
		]);
	});

	it('takes ways in one line, and a folder that is written twice once', () => {
		expect(ways('Drawings / General\ndrawings/Details\nDrawings/')).toEqual([
			'Drawings',
			'Drawings > General',
			'drawings > Details'
		]);
	});

	it.each([
		['A\n/B', 'Line 2 lacks a name.'],
		['A // B', 'Line 1 lacks a name.'],
		['x'.repeat(181), 'longer than 180']
	])('says what is wrong in %j', (text, fault) => {
		expect(readFolderList(text).fault).toContain(fault);
	});

	it('names every folder after the one it lies in, whatever is pasted', () => {
		fc.assert(
			fc.property(fc.array(fc.string()), (lines) => {
				const read = readFolderList(lines.join('\n'));
				const seen = new Set(['']);
				for (const way of read.ways ?? []) {
					expect(seen).toContain(way.slice(0, -1).join('/').toLowerCase());
					seen.add(way.join('/').toLowerCase());
				}
			})
		);
	});
});
