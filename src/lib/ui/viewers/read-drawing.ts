import type { Drawing } from '../../core/dxf/read';
import type { Sheet } from '../../core/dxf/sheet';
import type { DrawingAnswer, DrawingRequest } from '../../workers/dxf.worker';

/** A drawing ready to be shown: its model is page 1, the sheets that it is laid out on follow. */
export interface ReadDrawing {
	/** What its pages are called. */
	names: string[];
	model: Sheet;
	/** A page by its number. Raises an Error whose message is a sentence. */
	page(number: number): Promise<Sheet>;
	/** The drawing as it was read, when it was asked for. */
	drawing: Drawing | null;
}

/**
 * Reads and flattens a drawing in a worker. Raises an Error whose message is a sentence; never settles once aborted.
 * @param signal ends the worker, after which no page can be asked for any more
 * @param drawingToo the drawing itself is wanted, for changing it
 */
export async function readDrawing(
	bytes: ArrayBuffer,
	signal: AbortSignal,
	drawingToo = false
): Promise<ReadDrawing> {
	const worker = new Worker(new URL('../../workers/dxf.worker.ts', import.meta.url), { type: 'module' });
	signal.addEventListener('abort', () => worker.terminate());
	const asked = (request: DrawingRequest, give: Transferable[] = []) =>
		new Promise<DrawingAnswer>((done, failed) => {
			worker.onmessage = ({ data }: MessageEvent<DrawingAnswer>) =>
				'fault' in data ? failed(new Error(data.fault)) : done(data);
			worker.onerror = () => failed(new Error('The drawing cannot be read.'));
			worker.postMessage(request, give);
		});
	const read = await asked({ bytes, drawingToo }, [bytes]).catch((error: unknown) => {
		worker.terminate();
		throw error;
	});
	if (!('names' in read)) throw new Error('The drawing cannot be read.');
	const { names, model, drawing } = read;
	if (names.length === 1) worker.terminate();
	/** One page after the other: an answer belongs to what was asked last. */
	let last: Promise<unknown> = Promise.resolve();
	const page = (number: number): Promise<Sheet> => {
		if (number === 1) return Promise.resolve(model);
		const next = last.then(async () => {
			const given = await asked({ page: number });
			if (!('sheet' in given)) throw new Error('The drawing cannot be read.');
			return given.sheet;
		});
		last = next.catch(() => {});
		return next;
	};
	return { names, model, page, drawing };
}
