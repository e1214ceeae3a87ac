import { describe, expect, it } from 'vitest';
import { dayWordsOf } from '../time/days';
import { widenings, type PassTerms } from './passes';

const terms: PassTerms = {
	audience: 'named',
	emails: ['ansa@pilots.example'],
	password: true,
	endsAt: '2026-12-01T22:59:59.000Z',
	maxUses: 3,
	mayDownload: false,
	stamped: false
};

describe('a change of a pass', () => {
	it.each<[string, Partial<PassTerms>, Partial<PassTerms>, string[]]>([
		['nothing', {}, {}, []],
		['a sooner end', {}, { endsAt: '2026-11-30T22:59:59.000Z' }, []],
		['a later end', {}, { endsAt: '2026-12-09T22:59:59.000Z' }, ['it works until 9 Dec']],
		['fewer uses', {}, { maxUses: 1 }, []],
		['more uses', {}, { maxUses: 4 }, ['it may be used 4 times']],
		['no limit', {}, { maxUses: null }, ['it may be used without limit']],
		['a limit', { maxUses: null }, { maxUses: 9 }, []],
		[
			'another address',
			{},
			{ emails: ['ansa@pilots.example', 'b@pilots.example'] },
			['b@pilots.example may use it']
		],
		['one address less', {}, { emails: [] }, []],
		['no password', {}, { password: false }, ['it asks for no password any more']],
		['a password', { password: false }, {}, []],
		['taking', {}, { mayDownload: true }, ['files may be taken']],
		[
			'no stamp',
			{ mayDownload: true, stamped: true },
			{ mayDownload: true, stamped: false },
			['copies carry no stamp any more']
		],
		[
			'no taking, and no stamp with it',
			{ mayDownload: true, stamped: true },
			{ mayDownload: false, stamped: false },
			[]
		],
		['anyone', {}, { audience: 'anyone' }, ['anyone who holds the link may use it']],
		['accounts', {}, { audience: 'accounts' }, ['people with an account may use it']],
		['named instead of anyone', { audience: 'anyone' }, { audience: 'named' }, []]
	])('%s is told as wider only where it is', (_, before, after, sentences) => {
		const words = (at: string) => dayWordsOf(at, 'Europe/Oslo', new Date('2026-11-27T09:00:00Z'));
		expect(widenings({ ...terms, ...before }, { ...terms, ...after }, words)).toEqual(sentences);
	});
});
