import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOST_IN_COLUMN, neighbourhood, STEPS, type Names } from './neighbourhood';

const byName = (id: string) => id;
const columnsOf = (names: Names[]) =>
	Object.fromEntries(neighbourhood('me', names, byName).placed.map((one) => [one.id, one.column]));

describe('the neighbourhood of a document', () => {
	it('is who names it at one side and what it names at the other, two steps far', () => {
		expect(
			columnsOf([
				{ from: 'a', to: 'me' },
				{ from: 'b', to: 'a' },
				{ from: 'far', to: 'b' },
				{ from: 'me', to: 'x' },
				{ from: 'x', to: 'y' },
				{ from: 'y', to: 'beyond' }
			])
		).toEqual({ me: 0, a: -1, b: -2, x: 1, y: 2 });
	});

	it('has what stands at both sides where it is nearer, and what names it back behind it', () => {
		expect(
			columnsOf([
				{ from: 'me', to: 'x' },
				{ from: 'x', to: 'me' },
				{ from: 'me', to: 'p' },
				{ from: 'p', to: 'q' },
				{ from: 'q', to: 'me' }
			])
		).toEqual({ me: 0, x: 1, p: 1, q: -1 });
	});

	it('has what hangs on the same beside each other', () => {
		const names = ['a', 'b'].flatMap((id) => [
			{ from: 'me', to: id },
			...['1', '2'].map((n) => ({ from: id, to: `${n}${id}` }))
		]);
		const far = neighbourhood('me', names, byName).placed.filter((one) => one.column === 2);
		expect(far.map((one) => one.id)).toEqual(['1a', '2a', '1b', '2b']);
	});

	it('whatever names what: each stands once, in a place of its own, and those without room are counted', () => {
		const id = fc.integer({ min: 0, max: 40 }).map((n) => (n ? `d${n}` : 'me'));
		fc.assert(
			fc.property(fc.array(fc.record({ from: id, to: id }), { maxLength: 200 }), (names) => {
				const { placed, left } = neighbourhood('me', names, byName);
				expect(new Set(placed.map((one) => one.id)).size).toBe(placed.length);
				expect(new Set(placed.map((one) => `${one.column} ${one.row}`)).size).toBe(placed.length);
				expect(placed[0]).toEqual({ id: 'me', column: 0, row: 0 });
				for (const { column, row } of placed) {
					expect(Math.abs(column)).toBeLessThanOrEqual(STEPS);
					expect(row).toBeLessThan(MOST_IN_COLUMN);
				}
				// The same, said plainly: whatever is reached within two steps, one way or the other.
				const reached = new Set<string>();
				for (const [end, other] of [
					['from', 'to'],
					['to', 'from']
				] as const)
					for (const first of names.filter((one) => one[end] === 'me')) {
						reached.add(first[other]);
						for (const second of names) if (second[end] === first[other]) reached.add(second[other]);
					}
				reached.delete('me');
				const uncounted = Object.values(left).reduce((sum, n) => sum + n, 0);
				expect(placed.length - 1 + uncounted).toBe(reached.size);
			})
		);
	});
});
