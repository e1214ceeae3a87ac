/** Reads and flattens a DXF drawing off the main thread. */
import { decodeDxf, DxfError, readDxf } from '../core/dxf/read';
import { flatten } from '../core/dxf/flatten';

self.onmessage = (event: MessageEvent<ArrayBuffer>) => {
	try {
		const sheet = flatten(readDxf(decodeDxf(new Uint8Array(event.data))));
		const buffers = [
			...sheet.strokes.map((s) => s.points.buffer),
			...sheet.fills.flatMap((f) => f.loops.map((l) => l.buffer))
		] as ArrayBuffer[];
		self.postMessage({ sheet }, { transfer: buffers });
	} catch (error) {
		self.postMessage({ fault: error instanceof DxfError ? error.message : 'The drawing cannot be read.' });
	}
};
