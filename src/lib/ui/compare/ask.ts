import type { SheetOptions } from '../../core/compare/sheets';
import { PATIENCE, TOO_LONG } from './patience';
import type { RenderedPair } from './sheet-pair';
import type { Compares, SheetAnswer } from '../../workers/compare.worker';

/**
 * Has something compared in a worker of its own. Raises an Error whose message is a sentence when it cannot be, or
 * when it takes too long; ends quietly (never settling) when `signal` is aborted.
 * @param give buffers that the worker may keep
 */
export function compareInWorker<K extends keyof Compares>(
	what: K,
	input: Compares[K]['input'],
	{ give = [], signal }: { give?: Transferable[]; signal?: AbortSignal } = {}
): Promise<Compares[K]['answer']> {
	return new Promise((done, failed) => {
		const worker = new Worker(new URL('../../workers/compare.worker.ts', import.meta.url), {
			type: 'module'
		});
		const end = () => {
			clearTimeout(timer);
			worker.terminate();
		};
		const fail = (sentence: string) => {
			end();
			failed(new Error(sentence));
		};
		const timer = setTimeout(() => fail(TOO_LONG), PATIENCE);
		signal?.addEventListener('abort', end);
		worker.onmessage = (event: MessageEvent<{ answer?: Compares[K]['answer']; fault?: string }>) => {
			if (event.data.fault !== undefined) return fail(event.data.fault);
			end();
			done(event.data.answer!);
		};
		worker.onerror = () => fail('These two cannot be compared.');
		worker.postMessage({ what, input }, give);
	});
}

/**
 * Compares two drawn sheets: what is not ink yet is turned into it in a worker of its own, both at once, and these are
 * laid on each other in a third. Raises what {@link compareInWorker} raises.
 */
export async function compareDrawn(
	{ before, after, ink }: RenderedPair,
	options: SheetOptions,
	signal: AbortSignal
): Promise<SheetAnswer> {
	const [a, b] = await Promise.all([ink.before ?? inkOf(before, signal), ink.after ?? inkOf(after, signal)]);
	return compareInWorker('sheets', { before: a, after: b, options }, { signal });
}

function inkOf(picture: RenderedPair['before'], signal: AbortSignal): Promise<Compares['ink']['answer']> {
	const { width, height } = picture;
	const canvas = picture instanceof ImageBitmap ? drawnOn(picture) : picture;
	const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
	return compareInWorker('ink', { data, width, height }, { give: [data.buffer], signal });
}

function drawnOn(picture: ImageBitmap): HTMLCanvasElement {
	const canvas = document.createElement('canvas');
	[canvas.width, canvas.height] = [picture.width, picture.height];
	canvas.getContext('2d', { willReadFrequently: true })!.drawImage(picture, 0, 0);
	return canvas;
}
