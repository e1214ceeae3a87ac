import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { filled } from '../kit/menu';
import { arrange, menuOf, OFFER_GROUPS, type Offer } from './offers';

const offer = (id: string, group: Offer['group'] = 'work'): Offer => ({ id, word: id, group });
const words = (offers: (Offer | null)[]) => offers.map((one) => one?.id);

describe('what can be done with a document', () => {
	it('puts handing in first for who has it in hand', () => {
		const { main, near, rest } = arrange(
			['hand-in', 'give-back', 'extend', 'hand-over', 'mark-up', 'download', 'compare'].map((id) =>
				offer(id)
			),
			'page'
		);
		expect(words([main])).toEqual(['hand-in']);
		expect(words(near)).toEqual(['download', 'mark-up']);
		expect(words(rest)).toEqual(['give-back', 'extend', 'hand-over', 'compare']);
	});

	it('puts asking first when somebody else has it, and locking when nobody has', () => {
		expect(arrange([offer('ask'), offer('download')], 'page').main?.id).toBe('ask');
		expect(arrange([offer('lock'), offer('download')], 'page').main?.id).toBe('lock');
		expect(arrange([offer('lock'), offer('open')], 'block').main?.id).toBe('open');
	});

	it('leaves nothing out, shows nothing twice, and never stands five buttons in a row', () => {
		const ids = ['hand-in', 'lock', 'ask', 'give-back', 'mark-up', 'download', 'compare', 'open', 'remove'];
		fc.assert(
			fc.property(fc.subarray(ids), fc.constantFrom('page', 'block'), (some, on) => {
				const offers = some.map((id) => offer(id));
				const { main, near, rest } = arrange(offers, on);
				const all = [...(main ? [main] : []), ...near, ...rest];
				expect(words(all).sort()).toEqual(words(offers).sort());
				expect(near.length).toBeLessThanOrEqual(3);
			})
		);
	});

	it('has every offer under its head, and follows those that are ways', () => {
		const followed: string[] = [];
		const groups = filled(
			menuOf([offer('pass', 'send'), offer('remove', 'keep')], (one) => followed.push(one.id))
		);
		expect(groups.map(({ head }) => head)).toEqual([OFFER_GROUPS.send, OFFER_GROUPS.keep]);
		groups[0]!.entries[0]!.act();
		expect(followed).toEqual(['pass']);
	});
});
