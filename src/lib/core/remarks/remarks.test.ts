import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isOverdue, maySettle, mentionsIn, mentionText, plainRemark, remarkPieces } from './remarks';

const oke = { kind: 'person', id: 'abcdefghjk', name: 'Oke Lindvar' } as const;
const services = { kind: 'department', id: '23456789ab', name: 'Building services' } as const;

describe('mentions', () => {
	it('are found once each, and read as names', () => {
		const text = `${mentionText(oke)}, who moves? ${mentionText(services)} or ${mentionText(oke)}?`;
		expect(mentionsIn(text)).toEqual([oke, services]);
		expect(plainRemark(text)).toBe('Oke Lindvar, who moves? Building services or Oke Lindvar?');
		expect(remarkPieces(text).filter((p) => p.mention)).toHaveLength(3);
	});

	it('are only what is written as one', () => {
		for (const text of [
			'mail oke@vennholm.example',
			'@[Oke](person:short)',
			'@[Oke](robot:abcdefghjk)',
			'@[](person:abcdefghjk)'
		])
			expect(mentionsIn(text), text).toEqual([]);
	});

	it('whatever is around them, the pieces are the whole text', () => {
		fc.assert(
			fc.property(fc.array(fc.oneof(fc.string(), fc.constant(mentionText(oke)))), (parts) => {
				const text = parts.join('');
				expect(
					remarkPieces(text)
						.map((p) => p.text)
						.join('')
				).toBe(plainRemark(text));
			})
		);
	});
});

describe('settling', () => {
	const remark = { createdBy: 'halla', assignedPerson: 'petra', assignedDepartment: null };
	it.each([
		['who made it', 'halla', [], 'remark', true],
		['whom it was given to', 'petra', [], 'remark', true],
		['somebody else with Remark', 'jun', ['AR'], 'remark', false],
		['somebody with Work', 'jun', [], 'work', true],
		['who made it and has lost Remark', 'halla', [], 'view', false],
		['who made it and lost access', 'halla', [], null, false]
	] as const)('%s', (_, id, departments, level, may) => {
		expect(maySettle(remark, { id, departments }, level)).toBe(may);
	});
	it('a department that it was given to', () => {
		const given = { ...remark, assignedPerson: null, assignedDepartment: 'MW' };
		expect(maySettle(given, { id: 'oke', departments: ['MW'] }, 'remark')).toBe(true);
		expect(maySettle(given, { id: 'oke', departments: ['AR'] }, 'remark')).toBe(false);
	});
});

describe('a remark', () => {
	it('is overdue after its day, until it is settled', () => {
		const settled = { by: 'x', at: '', note: '' };
		expect(isOverdue({ due: '2026-11-23', settled: null }, '2026-11-24')).toBe(true);
		expect(isOverdue({ due: '2026-11-24', settled: null }, '2026-11-24')).toBe(false);
		expect(isOverdue({ due: '2026-11-20', settled }, '2026-11-24')).toBe(false);
		expect(isOverdue({ due: null, settled: null }, '2026-11-24')).toBe(false);
	});
});
