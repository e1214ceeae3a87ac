import { describe, expect, it } from 'vitest';
import { Narrowing } from './narrowing.svelte';

const NOTHING = { only: '', words: '' };

describe('what a list is narrowed to', () => {
	/** A page that loads what it is asked for when it is told to; of several, the last. */
	function slow() {
		let loaded = NOTHING;
		const asked: { to: typeof NOTHING; done: () => void; failed: () => void }[] = [];
		const narrowing = new Narrowing(
			() => loaded,
			(to) => new Promise<void>((done, failed) => asked.push({ to, done, failed: () => failed(new Error()) }))
		);
		const load = async () => {
			const last = asked.at(-1)!;
			loaded = last.to;
			for (const one of asked.splice(0)) one.done();
			await Promise.resolve();
		};
		return { narrowing, asked, load };
	}

	it('builds on what was asked for last, while that is on its way', async () => {
		const { narrowing, asked, load } = slow();
		narrowing.change({ only: 'none' });
		expect(narrowing.now.only).toBe('none');
		// Pressed again before it came: it is let go of, and the words that follow do not bring it back.
		narrowing.change({ only: '' });
		narrowing.change({ words: 'pile' });
		expect(asked.at(-1)!.to).toEqual({ only: '', words: 'pile' });
		await load();
		expect(narrowing.now).toEqual({ only: '', words: 'pile' });
	});

	it('is what is shown once that has come, and after it failed', async () => {
		const { narrowing, asked, load } = slow();
		narrowing.change({ words: 'a' });
		await load();
		narrowing.change({ words: 'ab' });
		asked.pop()!.failed();
		await Promise.resolve();
		expect(narrowing.now.words).toBe('a');
	});
});
