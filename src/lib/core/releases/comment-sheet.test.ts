import { describe, expect, it } from 'vitest';
import { releaseCommentSheet, type AnswerGiven } from './comment-sheet';
import { holdersList } from './holders-list';

const NOW = new Date('2026-12-03T23:30:00.000Z');
const project = { code: 'VFT', name: 'Vennholm Ferry Terminal', timeZone: 'Europe/Oslo' };
const answer = (more: Partial<AnswerGiven>): AnswerGiven => ({
	number: 'VFT-MW-LS-00-DR-0101',
	title: 'Linkspan',
	label: 'P03',
	by: 'Maren Aldgate',
	company: 'Vennholm Harbour Trust',
	at: '2026-12-02T23:30:00.000Z',
	code: 'A',
	words: '',
	page: null,
	how: null,
	consolidated: false,
	remark: null,
	...more
});

describe('the comment sheet of a release', () => {
	const remark = {
		number: 7,
		department: 'Marine works',
		due: '2026-12-16',
		answers: [{ by: 'Oke Lindvar', text: 'Moved, @[Halla Brandt](person:abcdefghjk).' }],
		settled: null
	};
	const { title, about, columns, rows } = releaseCommentSheet(
		{ number: 42, title: 'Linkspan', project },
		[
			answer({}),
			answer({ code: 'C', words: 'The hinge is too low.', remark }),
			answer({ code: 'C', words: 'This one.', page: 2, how: 'placed', remark: { ...remark, number: 8 } }),
			answer({
				code: 'D',
				words: 'Not so.',
				remark: { ...remark, settled: { by: 'Oke Lindvar', at: NOW.toISOString(), note: 'In P04.' } }
			}),
			answer({ by: 'Kaja Dorn', code: null, at: null }),
			answer({ by: 'Ines Maddock', code: 'C', words: 'The stricter one.', consolidated: true })
		],
		NOW
	);
	const said = (head: string) => rows.map((row) => row[columns.findIndex((one) => one.head === head)]);

	it('names the release, and the day in the zone of the project', () => {
		expect([title, about]).toEqual([
			'Comments on release 0042 Linkspan',
			'Vennholm Ferry Terminal, as of 4 Dec 2026'
		]);
		expect(said('On')[0]).toEqual({ day: '2026-12-03' });
	});

	it('has a row for each who answers or is to, and for what was made of verdicts that differ', () => {
		expect(said('Verdict')).toEqual([
			'A, accepted',
			'C, revise and resubmit',
			'C, remark on page 2',
			'D, refused',
			'not answered yet',
			'C, revise and resubmit, made of verdicts that differ'
		]);
	});

	it('follows what was answered into the remark that it became: whose it is, what was said, and how it ended', () => {
		expect(said('No.')).toEqual([null, 7, 8, 7, null, null]);
		expect(said('Answers')[1]).toBe('Oke Lindvar: Moved, Halla Brandt.');
		expect(said('To settle')[1]).toBe('Marine works by 16 Dec 2026');
		expect(said('State')).toEqual([null, 'open', 'open', 'settled by Oke Lindvar: In P04.', null, null]);
	});
});

describe('who holds what as a list', () => {
	it('has a column for each holder, with what they hold and how that stands', () => {
		const { columns, rows } = holdersList(
			project,
			[
				{ key: 'maren@x', name: 'Maren Aldgate', company: 'Harbour Trust' },
				{ key: 'kaja', name: 'Kaja', company: '' }
			],
			[
				{
					number: 'VFT-1',
					title: 'Linkspan',
					now: { label: 'P04.1' },
					issued: 'P03',
					held: [{ holder: 'kaja', label: 'P02', state: 'old' }]
				}
			],
			NOW
		);
		expect(columns.slice(4).map(({ head }) => head)).toEqual(['Maren Aldgate, Harbour Trust', 'Kaja']);
		expect(rows).toEqual([['VFT-1', 'Linkspan', 'P04.1', 'P03', null, 'P02, holds an old one']]);
	});
});
