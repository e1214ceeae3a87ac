/** Reads and flattens a DXF drawing off the main thread: the model, and the sheet it is laid out on if there is one. */
import { decodeDxf, DxfError, readDxf } from '../core/dxf/read';
import { flatten } from '../core/dxf/flatten';
import { layOut } from '../core/dxf/paper';
import type { Sheet } from '../core/dxf/sheet';

const buffersOf = (sheet: Sheet) => [
	...sheet.strokes.map((s) => s.points.buffer),
	...sheet.fills.flatMap((f) => f.loops.map((l) => l.buffer))
];

self.onmessage = ({ data }: MessageEvent<{ bytes: ArrayBuffer; paperToo: boolean; drawingToo: boolean }>) => {
	try {
		const drawing = readDxf(decodeDxf(new Uint8Array(data.bytes)));
		const model = flatten(drawing);
		const paper = data.paperToo ? layOut(drawing, model) : null;
		const buffers = [...buffersOf(model), ...(paper ? buffersOf(paper) : [])] as ArrayBuffer[];
		self.postMessage(
			{ model, paper, drawing: data.drawingToo ? drawing : null },
			{ transfer: [...new Set(buffers)] }
		);
	} catch (error) {
		self.postMessage({ fault: error instanceof DxfError ? error.message : 'The drawing cannot be read.' });
	}
};
