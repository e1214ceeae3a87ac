import { describe, expect, it } from 'vitest';
import { KeptByTrail } from './kept';

/** A project whose trail and whose state stand side by side; readings end when they are told to. */
function project() {
	const kept = new KeptByTrail<string>(2);
	const entries: { seq: number; concerns: boolean }[] = [];
	let state = 'at first';
	const pending: (() => void)[] = [];
	const since = async (seq: number) => ({
		seq: entries.at(-1)?.seq ?? 0,
		changed: seq === 0 || entries.some((one) => one.seq > seq && one.concerns)
	});
	return {
		reads: pending,
		change(to: string, concerns = true) {
			if (concerns) state = to;
			entries.push({ seq: (entries.at(-1)?.seq ?? 0) + 1, concerns });
		},
		get: (key = 'VFT') =>
			kept.get(key, since, () => {
				const read = state;
				return new Promise<string>((done) => pending.push(() => done(read)));
			}),
		/** Lets what is asked get as far as reading. */
		settle: () => new Promise((done) => setTimeout(done))
	};
}

describe('what is kept by the trail', () => {
	it('is read once, and again only after something that concerns it', async () => {
		const one = project();
		one.change('planned');
		const first = one.get();
		await one.settle();
		one.reads[0]!();
		expect(await first).toBe('planned');
		one.change('opened', false);
		expect(await one.get()).toBe('planned');
		expect(one.reads).toHaveLength(1);
		one.change('moved');
		const again = one.get();
		await one.settle();
		one.reads[1]!();
		expect(await again).toBe('moved');
	});

	it('serves all who ask while it is read, but nobody who knows of more', async () => {
		const one = project();
		one.change('planned');
		const [a, b] = [one.get(), one.get()];
		await one.settle();
		one.change('moved');
		const c = one.get();
		await one.settle();
		expect(one.reads).toHaveLength(2);
		for (const done of one.reads) done();
		expect(await Promise.all([a, b, c])).toEqual(['planned', 'planned', 'moved']);
	});

	it('is never what took longer to read than something newer', async () => {
		const one = project();
		one.change('planned');
		const slow = one.get();
		await one.settle();
		one.change('moved');
		const quick = one.get();
		await one.settle();
		one.reads[1]!();
		expect(await quick).toBe('moved');
		one.reads[0]!();
		expect(await slow).toBe('planned');
		expect(await one.get()).toBe('moved');
		expect(one.reads).toHaveLength(2);
	});

	it('is nothing that could not be read', async () => {
		const kept = new KeptByTrail<string>(2);
		const since = async () => ({ seq: 1, changed: true });
		await expect(kept.get('VFT', since, () => Promise.reject(new Error('no line')))).rejects.toThrow(
			'no line'
		);
		expect(await kept.get('VFT', since, async () => 'planned')).toBe('planned');
	});
});
