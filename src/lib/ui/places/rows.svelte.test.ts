import { describe, expect, it } from 'vitest';
import type { DocumentRow as Row } from '../../core/documents/rows';
import { FolderRows } from './rows.svelte';

const row = (n: number, title = `Sheet ${n}`) =>
	({ id: `d${n}`, number: String(n).padStart(4, '0'), title }) as Row;
const span = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => row(from + i));
const shown = (rows: FolderRows) => rows.rows.map((one) => one.id.slice(1)).join(' ');

/** Answers that come when they are let through. */
function slow(answers: ({ rows: Row[]; next?: string } | null)[]) {
	const waiting: (() => void)[] = [];
	const asked: string[] = [];
	const rows = new FolderRows((place, after) => {
		asked.push(`${place} ${after}`);
		const answer = answers.shift()!;
		return new Promise((resolve) => waiting.push(() => resolve(answer)));
	});
	const through = async () => {
		waiting.shift()!();
		await new Promise((resolve) => setTimeout(resolve));
	};
	return { rows, asked, through };
}

describe('the documents of a folder', () => {
	it('come page after page, and who waits for all of them has them all', async () => {
		const { rows, asked, through } = slow([{ rows: span(3, 4), next: '0004' }, { rows: span(5, 5) }]);
		void rows.take('f', span(1, 2), 5);
		let all: boolean | null = null;
		void rows.all().then((said) => (all = said));
		expect(shown(rows)).toBe('1 2');
		await through();
		expect([shown(rows), all]).toEqual(['1 2 3 4', null]);
		await through();
		expect([shown(rows), all]).toEqual(['1 2 3 4 5', true]);
		expect(asked).toEqual(['f 0002', 'f 0004']);
	});

	it('stand while they are asked for again, and what left is gone when they have come', async () => {
		const { rows, through } = slow([{ rows: span(3, 5) }, { rows: [row(3), row(5, 'Renamed')] }]);
		void rows.take('f', span(1, 2), 5);
		await through();
		const again = rows.take('f', span(1, 2), 4);
		expect(shown(rows)).toBe('1 2 3 4 5');
		await through();
		expect(await again).toBe(true);
		expect(shown(rows)).toBe('1 2 3 5');
		expect(rows.rows.at(-1)!.title).toBe('Renamed');
	});

	it('are waited for also when they are asked for again meanwhile', async () => {
		const { rows, through } = slow([{ rows: span(3, 4) }, { rows: span(3, 5) }]);
		void rows.take('f', span(1, 2), 4);
		const all = rows.all();
		void rows.take('f', span(1, 2), 5);
		await through();
		await through();
		expect([await all, shown(rows)]).toEqual([true, '1 2 3 4 5']);
	});

	it('keep what came one by one over an older answer', async () => {
		const { rows, through } = slow([{ rows: span(3, 5) }]);
		void rows.take('f', span(1, 2), 5);
		rows.put(row(4, 'Newer'));
		rows.put(row(9));
		rows.drop('d3');
		await through();
		expect(shown(rows)).toBe('1 2 4 5 9');
		expect(rows.rows.find((one) => one.id === 'd4')!.title).toBe('Newer');
		rows.drop('d1');
		expect(shown(rows)).toBe('2 4 5 9');
	});

	it('of another folder are not mixed with those of the one before, and an answer that comes late is passed over', async () => {
		const { rows, through } = slow([{ rows: span(3, 4) }, { rows: [row(12)] }]);
		const before = rows.take('f', span(1, 2), 4);
		const other = rows.take('g', [row(11)], 2);
		expect(shown(rows)).toBe('11');
		await through();
		await through();
		expect([await before, await other, shown(rows)]).toEqual([false, true, '11 12']);
	});

	it('say that some could not be had, and what stood stays', async () => {
		const { rows, through } = slow([{ rows: span(3, 4) }, null]);
		void rows.take('f', span(1, 2), 4);
		await through();
		const again = rows.take('f', span(1, 2), 4);
		await through();
		expect([await again, shown(rows)]).toEqual([false, '1 2 3 4']);
		expect(await rows.take('f', [], 0)).toBe(true);
		expect(shown(rows)).toBe('');
	});
});
