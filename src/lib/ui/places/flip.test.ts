import { beforeEach, describe, expect, it, vi } from 'vitest';

const asked = vi.hoisted(() => vi.fn());
vi.mock('../../client/cupboard', () => ({ cupboard: { documentsIn: asked } }));
const { flipFrom, rememberList } = await import('./flip');

/** What a browser keeps for a tab, with so much room. */
function storage(room = Infinity) {
	const kept = new Map<string, string>();
	vi.stubGlobal('sessionStorage', {
		getItem: (key: string) => kept.get(key) ?? null,
		setItem(key: string, value: string) {
			if (value.length > room) throw new Error('QuotaExceededError');
			kept.set(key, value);
		},
		removeItem: (key: string) => kept.delete(key)
	});
	return kept;
}
beforeEach(() => {
	storage();
	asked.mockReset();
	asked.mockResolvedValue({ rows: [{ id: 'a' }, { id: 'b' }, { id: 'c' }] });
});

describe('going from document to document', () => {
	it('follows the list one came from, as it was sorted', async () => {
		rememberList('pit', ['c', 'a', 'b']);
		expect(await flipFrom('a', 'pit')).toEqual({ before: 'c', after: 'b', at: 2, of: 3 });
		expect(await flipFrom('c', 'pit')).toEqual({ before: null, after: 'a', at: 1, of: 3 });
		expect(asked).not.toHaveBeenCalled();
	});

	it('asks for the folder when one came from elsewhere, or the document was not in the list', async () => {
		rememberList('deck', ['x', 'y']);
		expect(await flipFrom('b', 'pit')).toEqual({ before: 'a', after: 'c', at: 2, of: 3 });
		expect(asked).toHaveBeenCalledExactlyOnceWith({ place: 'pit', limit: 5_000 });
		expect(await flipFrom('c', 'pit')).toMatchObject({ before: 'b', after: null });
		expect(asked).toHaveBeenCalledOnce();
	});

	it('leads nowhere from a document that stands alone, or is gone', async () => {
		asked.mockResolvedValue({ rows: [{ id: 'a' }] });
		expect(await flipFrom('a', 'pit')).toBeNull();
		rememberList('pit', ['a', 'b']);
		expect(await flipFrom('z', 'pit')).toBeNull();
	});

	it('forgets a list that is too long to keep, rather than keeping an older one', async () => {
		const kept = storage(60);
		rememberList('pit', ['c', 'b', 'a']);
		rememberList(
			'pit',
			Array.from({ length: 40 }, (_, i) => `d${i}`)
		);
		expect(kept.size).toBe(0);
		expect(await flipFrom('b', 'pit')).toMatchObject({ before: 'a' });
	});
});
