import { describe, expect, it } from 'vitest';
import type { EventRow } from '../../core/documents/rows';
import { EventPages, EVENTS_AT_ONCE } from './event-pages.svelte';

/** Entries from one down to another. */
const span = (from: number, to: number) =>
	Array.from({ length: from - to + 1 }, (_, i) => ({ seq: from - i }) as EventRow);
const seqs = (pages: EventPages) => pages.events.map((one) => one.seq);
const newest = (top: number) => span(top, top - EVENTS_AT_ONCE + 1);
/** A trail that has entries up to 200. */
const trail = () =>
	new EventPages((before) => Promise.resolve(span(before - 1, Math.max(1, before - EVENTS_AT_ONCE))), {
		newest: newest(200),
		list: 'all'
	});

describe('the entries of a trail', () => {
	it('come a page at a time, down to the first', async () => {
		const pages = trail();
		for (let n = 0; n < 5; n++) await pages.more();
		expect(seqs(pages)).toEqual(span(200, 1).map((one) => one.seq));
		expect(pages.done).toBe(true);
	});

	it('stay when something new comes, without a gap and each once', async () => {
		const pages = trail();
		await pages.more();
		pages.take(newest(203), 'all');
		expect(seqs(pages)).toEqual(span(203, 41).map((one) => one.seq));
		await pages.more();
		expect(seqs(pages)).toEqual(span(203, 1).map((one) => one.seq));
	});

	it('begin anew where more came than is asked for at a time, and when the list is another', async () => {
		const pages = trail();
		await pages.more();
		pages.take(newest(300), 'all');
		expect(seqs(pages)).toHaveLength(EVENTS_AT_ONCE);
		pages.take(span(299, 298), 'of Oke');
		expect([seqs(pages), pages.done]).toEqual([[299, 298], true]);
		pages.take([], 'of Oke');
		expect(seqs(pages)).toEqual([]);
	});

	it('tell no longer that a place is removed once it is back, however far down', async () => {
		const removed = { id: 'pit', removed: true } as EventRow['place'];
		const pages = new EventPages(() => Promise.resolve([{ seq: 100, place: removed } as EventRow]), {
			newest: newest(200),
			list: 'all'
		});
		await pages.more();
		pages.restored('pit');
		pages.take(newest(201), 'all');
		expect(pages.events.at(-1)).toMatchObject({ seq: 100, place: { id: 'pit', removed: false } });
	});

	it('of another list are not mixed in when an answer comes late', async () => {
		let answer: (events: EventRow[]) => void = () => {};
		const pages = new EventPages(() => new Promise((resolve) => (answer = resolve)), {
			newest: newest(200),
			list: 'all'
		});
		const asked = pages.more();
		pages.take(span(90, 88), 'of Oke');
		answer(span(120, 41));
		await asked;
		expect(seqs(pages)).toEqual([90, 89, 88]);
	});
});
