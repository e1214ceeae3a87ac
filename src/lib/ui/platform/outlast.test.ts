import { describe, expect, it, vi } from 'vitest';
import { outlasting } from './outlast';

const DATA = 'http://here/vft/today/__data.json?x=1';
const json = (text: string) => new Response(text, { headers: { 'content-type': 'application/json' } });
/** One whose line is down for the first tries. */
function broken(tries: number) {
	let left = tries;
	return vi.fn<typeof fetch>(() =>
		left-- > 0 ? Promise.reject(new TypeError('Failed to fetch')) : Promise.resolve(json('{"all":"there"}'))
	);
}

describe('a page that is open', () => {
	it('is asked for until the line is back', async () => {
		const ask = broken(3);
		const pauses: number[] = [];
		const patient = outlasting(
			ask,
			() => '/vft/today',
			(ms) => Promise.resolve(pauses.push(ms))
		);
		expect(await (await patient(DATA)).json()).toEqual({ all: 'there' });
		expect(ask).toHaveBeenCalledTimes(4);
		expect(pauses).toEqual([1_000, 1_000, 1_000]);
	});

	it('is asked for again when its answer breaks off', async () => {
		let cut = true;
		const ask: typeof fetch = () => {
			if (!cut) return Promise.resolve(json('{}'));
			cut = false;
			const body = new ReadableStream({ pull: (c) => c.error(new TypeError('network error')) });
			return Promise.resolve(new Response(body, { headers: { 'content-type': 'application/json' } }));
		};
		const patient = outlasting(
			ask,
			() => '/vft/today',
			() => Promise.resolve()
		);
		expect(await (await patient(DATA)).text()).toBe('{}');
	});

	it('keeps what an answer says of itself', async () => {
		const refused = new Response('"gone"', { status: 404, headers: { 'content-type': 'application/json' } });
		const patient = outlasting(
			() => Promise.resolve(refused),
			() => '/vft/today'
		);
		expect((await patient(DATA)).status).toBe(404);
	});
});

describe('what is not the open page', () => {
	it('is told at once that there is no line', async () => {
		const patient = outlasting(
			broken(9),
			() => '/vft/today',
			() => Promise.reject(new Error('waited'))
		);
		for (const other of [
			'http://here/vft/shelves/__data.json',
			'/api/v1/projects',
			new Request('http://here/x')
		])
			await expect(patient(other)).rejects.toThrow('Failed to fetch');
	});

	it('is never answered when it was left meanwhile', async () => {
		let open = '/vft/today';
		const ask = broken(1);
		const patient = outlasting(
			ask,
			() => open,
			() => Promise.resolve((open = '/vft/shelves'))
		);
		const answered = await Promise.race([
			patient(DATA).then(() => true),
			new Promise((done) => setTimeout(done, 20))
		]);
		expect(answered).toBeUndefined();
		expect(ask).toHaveBeenCalledTimes(1);
	});
});
