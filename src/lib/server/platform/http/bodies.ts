import type { Readable } from 'node:stream';
import { newSecret } from '../ids';

/** The header by which an answer names its body to the plain server, which takes it out again. */
export const BODY = 'x-cupboard-body';

/** How long a body waits to be fetched: only what went wrong on the way waits longer than a moment. */
const FORGOTTEN = 60_000;

/**
 * Bodies of answers that the plain server sends by itself. The framework sends through web streams, which copy every
 * piece twice; acts and views decide, and then the bytes go from the file to the socket.
 */
export class Bodies {
	private readonly waiting = new Map<string, { open: () => Readable; forget: NodeJS.Timeout }>();
	/** Whether a plain server stands around the framework that fetches them; not while developing. */
	fetched = false;

	/** Keeps a body for the answer that is on its way, and gives what names it. Nothing is opened yet. */
	keep(open: () => Readable): string {
		const name = newSecret();
		const forget = setTimeout(() => this.waiting.delete(name), FORGOTTEN).unref();
		this.waiting.set(name, { open, forget });
		return name;
	}

	/** Opens a kept body, once; null for one that nobody kept. */
	fetch(name: string): Readable | null {
		const kept = this.waiting.get(name);
		if (!kept) return null;
		clearTimeout(kept.forget);
		this.waiting.delete(name);
		return kept.open();
	}
}
