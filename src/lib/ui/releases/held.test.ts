import { expect, it, vi } from 'vitest';

const MANY = 2_000;
const asked: { skip: number; limit: number }[] = [];
vi.mock('../../client/cupboard', () => ({
	cupboard: {
		holders: async ({ skip, limit }: { skip: number; limit: number }) => {
			asked.push({ skip, limit });
			const rows = Array.from({ length: MANY }, (_, i) => ({
				document: `d${i}`,
				held: i % 2 ? [{ holder: 'k' }] : []
			}));
			return {
				holders: [{ key: 'k', name: 'Kaja Dorn' }],
				rows: rows.slice(skip, skip + limit),
				total: MANY
			};
		}
	}
}));
const { heldOf } = await import('./held');

it('says of every document of the largest release who holds it', async () => {
	const held = await heldOf('VFT', 'r');
	expect(held.size).toBe(MANY);
	expect([held.get('d1'), held.get('d1998'), held.get('d1999')]).toEqual([['Kaja Dorn'], [], ['Kaja Dorn']]);
	expect(asked).toHaveLength(2);
});
