import * as encoding from 'lib0/encoding';
import { describe, expect, it } from 'vitest';
import { readMessage } from './messages';
import { nameOf, roomOf } from './names';
import { judgePresence } from './presence';

/** A message as a browser frames it. */
function message(type: number, write: (encoder: encoding.Encoder) => void): Uint8Array {
	const encoder = encoding.createEncoder();
	encoding.writeVarString(encoder, 'text/abcdefghjk/23456789ab');
	encoding.writeVarUint(encoder, type);
	write(encoder);
	return encoding.toUint8Array(encoder);
}
const presence = (...states: [number, number, unknown][]) =>
	message(1, (encoder) => {
		const inner = encoding.createEncoder();
		encoding.writeVarUint(inner, states.length);
		for (const [client, clock, state] of states) {
			encoding.writeVarUint(inner, client);
			encoding.writeVarUint(inner, clock);
			encoding.writeVarString(inner, JSON.stringify(state));
		}
		encoding.writeVarUint8Array(encoder, encoding.toUint8Array(inner));
	});

describe('names of rooms', () => {
	it('are read as they are written, and nothing else is one', () => {
		for (const name of ['text/abcdefghjk/23456789ab', 'marks/abcdefghjk/P03.2', 'marks/abcdefghjk/C01'])
			expect(nameOf(roomOf(name)!)).toBe(name);
		for (const name of [
			'',
			'text/abcdefghjk',
			'text/../x',
			'marks/abcdefghjk/a/b',
			'marks/abcdefghjk/',
			'other/abcdefghjk/x'
		])
			expect(roomOf(name), name).toBeNull();
	});
});

describe('messages', () => {
	it('are told apart before anything acts on them', () => {
		const update = new Uint8Array([1, 2, 3]);
		const sync = (step: number) =>
			message(0, (e) => {
				encoding.writeVarUint(e, step);
				encoding.writeVarUint8Array(e, update);
			});
		expect(readMessage(sync(0))).toEqual({ kind: 'ask' });
		expect(readMessage(sync(1))).toEqual({ kind: 'change', update, resync: true });
		expect(readMessage(sync(2))).toEqual({ kind: 'change', update, resync: false });
		// Messages to all that the server would pass on unread.
		for (const type of [5, 6, 8, 99]) expect(readMessage(message(type, () => {}))).toEqual({ kind: 'other' });
		expect(() => readMessage(new Uint8Array([200]))).toThrow();
	});

	it('of presence can be made to say nothing', () => {
		const bytes = presence([7, 1, { user: { id: 'oke' } }]);
		const read = readMessage(bytes);
		expect(read).toMatchObject({ kind: 'presence', states: [{ client: 7, clock: 1 }] });
		if (read.kind === 'presence') read.strike();
		expect(readMessage(bytes)).toMatchObject({ states: [] });
	});
});

describe('presence', () => {
	const known = {
		clock: (client: number) => (client === 9 ? 4 : -1),
		another: (client: number) => client === 9
	};
	const of = (client: number, clock: number, state: unknown) => ({ client, clock, state });
	const oke = { user: { id: 'oke', name: 'Oke' } };

	it.each([
		['one’s own cursor is one’s own', of(7, 1, oke), { own: [7], strike: false }],
		[
			'what was heard of another is repeated',
			of(9, 4, { user: { id: 'halla' } }),
			{ own: [], strike: false }
		],
		['another’s cursor is not moved', of(9, 5, { user: { id: 'halla' } }), 'refused'],
		['nor under one’s own name', of(9, 5, oke), 'refused'],
		['another’s name is not taken', of(7, 1, { user: { id: 'halla' } }), 'refused'],
		['nobody is nameless', of(7, 1, {}), 'refused'],
		['that another left is struck out', of(9, 4, null), { own: [], strike: true }],
		['that one left oneself is not', of(7, 2, null), { own: [], strike: false }],
		['a cursor says little', of(7, 1, { ...oke, more: 'x'.repeat(5_000) }), 'refused']
	] as const)('%s', (_, said, judged) => {
		expect(judgePresence([said], 'oke', known)).toEqual(judged);
	});
});
