import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PURPOSES } from '../revisions/revisions';
import {
	isLeft,
	narrowedReleases,
	RELEASES_LEFT,
	releasesTable,
	routeWords,
	soFarWords,
	type ListedRelease,
	type ReleasesShown
} from './release-list';
import { RELEASE_STATE_LABEL } from './states';

const TODAY = '2026-12-02';
const release = (more: Partial<ListedRelease> = {}): ListedRelease => ({
	...{ number: 33, title: 'Linkspan for approval', purpose: 'approval', state: 'issued' },
	...{ to: 'Vennholm Harbour Trust', builtBy: 'Ines Maddock', documents: 13 },
	...{ issuedAt: '2026-11-18T23:30:00.000Z', replyBy: '2026-12-01', steps: 1, approved: 1, turn: null },
	...{ recipients: 1, received: 1, asked: 13, answered: 3, differing: 0 },
	...more
});
const all: ReleasesShown = { text: '', state: '', purpose: '', left: '' };
const shown = (rows: ListedRelease[], by: Partial<ReleasesShown>) =>
	narrowedReleases(rows, { ...all, ...by }, TODAY).map((one) => one.number);

describe('a list of releases', () => {
	const rows = [
		release({ number: 35, state: 'building', issuedAt: null, asked: 4, answered: 0, purpose: 'comment' }),
		release({ number: 34, state: 'in-review', turn: 'Lead approval', issuedAt: null, steps: 2 }),
		release(),
		release({ number: 32, answered: 13, title: 'Pile caps', to: 'Tarn Steelwork, Vennholm Harbour Trust' }),
		release({ number: 31, replyBy: '2026-12-02' }),
		release({ number: 30, state: 'superseded' }),
		release({ number: 29, answered: 12, differing: 1, replyBy: null })
	];

	it('is narrowed by words of number, title, who gets it and whose turn it is, all of which must be found', () => {
		expect(shown(rows, { text: ' 0033 ' })).toEqual([33]);
		expect(shown(rows, { text: 'tarn PILE' })).toEqual([32]);
		expect(shown(rows, { text: 'tarn linkspan' })).toEqual([]);
		expect(shown(rows, { text: 'lead' })).toEqual([34]);
	});

	it('is narrowed by state, purpose and what is left to do', () => {
		expect(shown(rows, { state: 'superseded' })).toEqual([30]);
		expect(shown(rows, { purpose: 'comment' })).toEqual([35]);
		expect(shown(rows, { left: 'waiting' })).toEqual([33, 31]);
		// Today is not late; what is superseded is not waited for, nor what differs.
		expect(shown(rows, { left: 'late' })).toEqual([33]);
		expect(shown(rows, { left: 'differ' })).toEqual([29]);
	});

	it('never loses its order, nor shows what does not fit, however it is narrowed', () => {
		const some = fc.record({
			number: fc.nat(99),
			state: fc.constantFrom(...(Object.keys(RELEASE_STATE_LABEL) as ListedRelease['state'][])),
			purpose: fc.constantFrom(...PURPOSES),
			asked: fc.nat(3),
			answered: fc.nat(3),
			differing: fc.nat(1),
			replyBy: fc.option(fc.constantFrom('2026-12-01', TODAY, '2026-12-03'))
		});
		const by = fc.record({
			state: fc.constantFrom('' as const, 'issued' as const),
			purpose: fc.constantFrom('' as const, ...PURPOSES),
			left: fc.constantFrom('' as const, ...RELEASES_LEFT)
		});
		fc.assert(
			fc.property(fc.array(some), by, (list, narrow) => {
				const listed = list.map(release);
				const seen = narrowedReleases(listed, { ...all, ...narrow }, TODAY);
				expect(listed.filter((one) => seen.includes(one))).toEqual(seen);
				const { state, purpose, left } = narrow;
				expect(seen).toEqual(
					listed.filter(
						(one) =>
							(state === '' || one.state === state) &&
							(purpose === '' || one.purpose === purpose) &&
							(left === '' || isLeft(one, left, TODAY))
					)
				);
			})
		);
	});

	it('says where each is on its route, and what came back', () => {
		expect(rows.slice(0, 3).map(routeWords)).toEqual(['done', 'Lead approval, step 2 of 2', 'done']);
		expect(routeWords({ turn: null, steps: 2, approved: 0 })).toBe('2 steps');
		const words = (more: Partial<ListedRelease>) => soFarWords(release(more), TODAY);
		expect(words({ issuedAt: null })).toBe('asked by 1 Dec');
		expect(words({ differing: 2 })).toBe('2 verdicts differ');
		expect(words({ answered: 13 })).toBe('all verdicts are in');
		expect(words({})).toBe('3 of 13 verdicts');
		expect(words({ answered: 0, received: 0 })).toBe('not received yet');
		expect(words({ answered: 0, recipients: 2 })).toBe('received by 1 of 2');
		expect(words({ asked: 0, answered: 0 })).toBe('received');
	});

	it('is taken away as a table, with days as days of the project', () => {
		const project = { name: 'Vennholm Ferry Terminal', timeZone: 'Europe/Oslo' };
		const { about, columns, rows: table } = releasesTable(project, rows, new Date('2026-12-01T23:30:00Z'));
		expect(about).toBe('as of 2 Dec 2026');
		expect(table[2]).toHaveLength(columns.length);
		expect(table[2]).toEqual([
			...['0033', 'Linkspan for approval', 'For approval', 'issued', 'Vennholm Harbour Trust', 'done', 13],
			...[{ day: '2026-11-19' }, { day: '2026-12-01' }, 13, 3, '3 of 13 verdicts', 'Ines Maddock']
		]);
		expect(table[0]![7]).toBeNull();
	});
});
