import type { Sheet } from '../core/dxf/sheet';

/** Reads and flattens a drawing in a worker. Raises an Error whose message is a sentence; never settles once aborted. */
export function readDrawing(bytes: ArrayBuffer, signal: AbortSignal): Promise<Sheet> {
	return new Promise((done, failed) => {
		const worker = new Worker(new URL('../workers/dxf.worker.ts', import.meta.url), { type: 'module' });
		signal.addEventListener('abort', () => worker.terminate());
		worker.onmessage = (event: MessageEvent<{ sheet?: Sheet; fault?: string }>) => {
			worker.terminate();
			if (event.data.sheet) done(event.data.sheet);
			else failed(new Error(event.data.fault));
		};
		worker.onerror = () => failed(new Error('The drawing cannot be read.'));
		worker.postMessage(bytes, [bytes]);
	});
}
