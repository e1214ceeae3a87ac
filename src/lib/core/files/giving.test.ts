import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wayOut, type Asking } from './giving';

const asking = (more: Partial<Asking>): Asking => ({
	download: false,
	destination: 'document',
	ahead: false,
	shows: true,
	...more
});

describe('how content leaves', () => {
	it('never gives out the bytes to somebody who may view only, whatever is asked', () => {
		const any = fc.record({
			download: fc.boolean(),
			destination: fc.option(
				fc.oneof(fc.constantFrom('document', 'empty', 'image', 'video', 'iframe'), fc.string())
			),
			ahead: fc.boolean(),
			shows: fc.boolean()
		});
		fc.assert(
			fc.property(any, (one) => {
				expect(['made', 'no']).toContain(wayOut(one, false));
			})
		);
	});

	it('is a download when it is asked for, when a program asks, and when no browser can show it', () => {
		expect(wayOut(asking({ download: true }), true)).toBe('give');
		expect(wayOut(asking({ destination: null }), true)).toBe('give');
		expect(wayOut(asking({ shows: false }), true)).toBe('give');
		expect(wayOut(asking({}), true)).toBe('show');
		expect(wayOut(asking({ destination: 'empty', shows: false }), true)).toBe('show');
	});

	it('is never begun by a picture in a text, nor ahead of anybody’s choice', () => {
		expect(wayOut(asking({ download: true, destination: 'image' }), true)).toBe('no');
		expect(wayOut(asking({ destination: 'image' }), true)).toBe('part');
		expect(wayOut(asking({ download: true, ahead: true }), true)).toBe('no');
	});
});
