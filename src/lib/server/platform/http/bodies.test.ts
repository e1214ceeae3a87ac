import { Readable } from 'node:stream';
import { describe, expect, it, vi } from 'vitest';
import { Bodies } from './bodies';

describe('a body that is kept for the plain server', () => {
	it('is opened when it is fetched, and only once', async () => {
		const bodies = new Bodies();
		const open = vi.fn(() => Readable.from(['hinge']));
		const name = bodies.keep(open);
		expect(open).not.toHaveBeenCalled();
		expect(await bodies.fetch(name)!.toArray()).toEqual(['hinge']);
		expect(bodies.fetch(name)).toBeNull();
		expect(open).toHaveBeenCalledTimes(1);
	});

	it('is nobody’s who does not know its name', () => {
		const bodies = new Bodies();
		bodies.keep(() => Readable.from([]));
		expect(bodies.fetch('')).toBeNull();
		expect(bodies.fetch('constructor')).toBeNull();
	});

	it('is forgotten when nobody fetches it', () => {
		vi.useFakeTimers();
		const bodies = new Bodies();
		const name = bodies.keep(() => Readable.from([]));
		vi.advanceTimersByTime(61_000);
		expect(bodies.fetch(name)).toBeNull();
		vi.useRealTimers();
	});
});
