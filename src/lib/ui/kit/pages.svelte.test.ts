import { describe, expect, it } from 'vitest';
import { Pages } from './pages.svelte';

const rowsOf = (from: number, to: number) =>
	Array.from({ length: Math.max(0, to - from) }, (_, i) => ({ id: `r${from + i}` }));
/** A list of so many rows, of which 200 come at first. */
function list(total: number) {
	let all = rowsOf(0, total);
	const asked: [number, number][] = [];
	const held: (() => void)[] = [];
	let hold = false;
	const pages = new Pages<{ id: string }>(async (skip, limit) => {
		asked.push([skip, limit]);
		const part = all.slice(skip, skip + limit);
		if (hold) await new Promise<void>((go) => held.push(go));
		return part;
	});
	return {
		pages,
		asked,
		hold: (on: boolean) => (hold = on),
		release: () => held.splice(0).forEach((go) => go()),
		change: (to: typeof all) => (all = to),
		first: (name = '') => pages.take(all.slice(0, 200), all.length, name)
	};
}
const ids = (pages: Pages<{ id: string }>) => pages.rows.map((row) => row.id);

describe('the pages of a list', () => {
	it('come as they are asked for, until all are here', async () => {
		const { pages, asked, first } = list(2_500);
		await first();
		expect(pages.rows).toHaveLength(200);
		await Promise.all([pages.more(), pages.more()]);
		expect(asked).toEqual([[200, 1_000]]);
		await pages.all();
		expect(ids(pages)).toEqual(rowsOf(0, 2_500).map((row) => row.id));
		await pages.more();
		expect(asked).toHaveLength(3);
	});

	it('stay while the first is read anew, and are then read anew too', async () => {
		const one = list(1_500);
		await one.first();
		await one.pages.more();
		one.change([{ id: 'new' }, ...rowsOf(0, 1_500)]);
		one.hold(true);
		const taking = one.first();
		// The last of the first page moved to the next: it stands here once, and nobody lost their place.
		expect(one.pages.rows.length).toBeGreaterThanOrEqual(1_200);
		expect(new Set(ids(one.pages)).size).toBe(one.pages.rows.length);
		one.release();
		await taking;
		expect(ids(one.pages).slice(0, 2)).toEqual(['new', 'r0']);
		expect(ids(one.pages).at(-1)).toBe('r1198');
	});

	it('begin anew for another narrowing, whatever comes late', async () => {
		const one = list(1_500);
		await one.first('all');
		one.hold(true);
		const late = one.pages.more();
		one.change(rowsOf(5_000, 5_300));
		await one.first('late ones');
		one.release();
		await late;
		expect(ids(one.pages)).toEqual(rowsOf(5_000, 5_200).map((row) => row.id));
		one.hold(false);
		await one.pages.more();
		expect(one.pages.rows).toHaveLength(300);
	});

	it('are kept when one cannot be had, and asked for again', async () => {
		let fails = true;
		const pages = new Pages<{ id: string }>(async (skip, limit) =>
			fails ? null : rowsOf(skip, Math.min(300, skip + limit))
		);
		await pages.take(rowsOf(0, 200), 300, '');
		expect(await pages.all()).toBeNull();
		fails = false;
		expect(await pages.all()).toHaveLength(300);
	});
});
