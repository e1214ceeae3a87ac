import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainInput, firstFault, GENESIS, type ChainedEvent } from './chain';

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

function chainOf(details: unknown[]) {
	let previous = GENESIS;
	return details.map((d, i) => {
		const event: ChainedEvent = {
			seq: i + 1,
			at: '2026-11-23T09:12:00.000Z',
			actor: 'ines',
			kind: 'lock.taken',
			place: null,
			document: 'd',
			release: null,
			details: d
		};
		const hash = sha256(chainInput(previous, event));
		const row = { ...event, previous, hash };
		previous = hash;
		return row;
	});
}

describe('the event chain', () => {
	it('does not depend on the order of keys', () => {
		const a = chainOf([{ x: 1, y: 2 }])[0]!;
		const b = chainOf([{ y: 2, x: 1 }])[0]!;
		expect(a.hash).toBe(b.hash);
	});

	it('holds as written and breaks at the entry that is changed, left out or put in', () => {
		fc.assert(
			fc.property(fc.array(fc.jsonValue(), { minLength: 2, maxLength: 12 }), fc.nat(), (details, pick) => {
				const chain = chainOf(details);
				expect(firstFault(chain, sha256)).toBeNull();
				const at = pick % chain.length;
				const changed = chain.map((e, i) => (i === at ? { ...e, actor: 'somebody' } : e));
				expect(firstFault(changed, sha256)?.seq).toBe(at + 1);
				if (at < chain.length - 1) {
					const shorter = chain.filter((_, i) => i !== at);
					expect(firstFault(shorter, sha256)?.seq).toBe(at + 1);
				}
			})
		);
	});
});
