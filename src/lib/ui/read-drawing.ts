import type { Sheet } from '../core/dxf/sheet';

/** A drawing ready to be shown: the model, and the sheet it is laid out on when it has one. */
export interface Spaces {
	model: Sheet;
	paper: Sheet | null;
}

/**
 * Reads and flattens a drawing in a worker. Raises an Error whose message is a sentence; never settles once aborted.
 * @param paperToo whether the sheet the model is laid out on is wanted too
 */
export function readDrawing(bytes: ArrayBuffer, signal: AbortSignal, paperToo = false): Promise<Spaces> {
	return new Promise((done, failed) => {
		const worker = new Worker(new URL('../workers/dxf.worker.ts', import.meta.url), { type: 'module' });
		signal.addEventListener('abort', () => worker.terminate());
		worker.onmessage = ({ data }: MessageEvent<Spaces | { fault: string }>) => {
			worker.terminate();
			if ('model' in data) done(data);
			else failed(new Error(data.fault));
		};
		worker.onerror = () => failed(new Error('The drawing cannot be read.'));
		worker.postMessage({ bytes, paperToo }, [bytes]);
	});
}
