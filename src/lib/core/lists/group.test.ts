import fc from 'fast-check';
import { expect, it } from 'vitest';
import { groupedBy } from './group';

it('groups keep every one, in its order, under the key that it has', () => {
	fc.assert(
		fc.property(fc.array(fc.nat(40)), (all) => {
			const numbered = all.map((value, at) => ({ value, at }));
			const groups = groupedBy(numbered, ({ value }) => value % 5);
			expect([...groups.keys()]).toEqual([...new Set(all.map((value) => value % 5))]);
			expect([...groups.values()].flat().sort((a, b) => a.at - b.at)).toEqual(numbered);
			for (const [key, group] of groups) {
				expect(group.every(({ value }) => value % 5 === key)).toBe(true);
				expect(group.map(({ at }) => at)).toEqual(group.map(({ at }) => at).sort((a, b) => a - b));
			}
		})
	);
});
