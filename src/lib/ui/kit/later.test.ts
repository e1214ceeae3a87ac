import { describe, expect, it, vi } from 'vitest';

const said = vi.hoisted(() => vi.fn());
vi.mock('./toast', () => ({ toast: { error: said } }));
const { later } = await import('./later');

describe('a part that is fetched when it is needed', () => {
	it('is there, and nothing is said of it', async () => {
		const giveUp = vi.fn();
		expect(await later(() => Promise.resolve({ default: 'the dialog' }), giveUp)).toBe('the dialog');
		expect([said.mock.calls, giveUp.mock.calls]).toEqual([[], []]);
	});

	it('says that it cannot be fetched, shows nothing in its place, and can be asked for again', async () => {
		const giveUp = vi.fn();
		const shown = vi.fn();
		void later(() => Promise.reject(new TypeError('Failed to fetch')), giveUp).then(shown, shown);
		await vi.waitFor(() => expect(giveUp).toHaveBeenCalledOnce());
		expect(said).toHaveBeenCalledExactlyOnceWith(expect.stringContaining('could not be fetched'));
		expect(shown).not.toHaveBeenCalled();
		expect(await later(() => Promise.resolve({ default: 'the dialog' }), giveUp)).toBe('the dialog');
	});
});
