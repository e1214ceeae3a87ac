import type { Drawing } from '../core/dxf/read';
import type { Sheet } from '../core/dxf/sheet';

/** A drawing ready to be shown: the model, and the sheet it is laid out on when it has one. */
export interface Spaces {
	model: Sheet;
	paper: Sheet | null;
	/** The drawing as it was read, when it was asked for. */
	drawing: Drawing | null;
}

/** What is wanted of a drawing beside its model. */
export interface Wanted {
	/** The sheet that the model is laid out on. */
	paper?: boolean;
	/** The drawing itself, for changing it. */
	drawing?: boolean;
}

/** Reads and flattens a drawing in a worker. Raises an Error whose message is a sentence; never settles once aborted. */
export function readDrawing(bytes: ArrayBuffer, signal: AbortSignal, wanted: Wanted = {}): Promise<Spaces> {
	return new Promise((done, failed) => {
		const worker = new Worker(new URL('../workers/dxf.worker.ts', import.meta.url), { type: 'module' });
		signal.addEventListener('abort', () => worker.terminate());
		worker.onmessage = ({ data }: MessageEvent<Spaces | { fault: string }>) => {
			worker.terminate();
			if ('model' in data) done(data);
			else failed(new Error(data.fault));
		};
		worker.onerror = () => failed(new Error('The drawing cannot be read.'));
		worker.postMessage({ bytes, paperToo: wanted.paper ?? false, drawingToo: wanted.drawing ?? false }, [
			bytes
		]);
	});
}
