/** Reads a DXF drawing off the main thread and gives its pages as they are asked for. */
import { DrawingPages } from '../core/dxf/pages';
import { decodeDxf, DxfError, readDxf, type Drawing } from '../core/dxf/read';
import type { Sheet } from '../core/dxf/sheet';

/** First the bytes of the drawing, then pages of it by their numbers. */
export type DrawingRequest = { bytes: ArrayBuffer; drawingToo: boolean } | { page: number };
export type DrawingAnswer =
	| { names: string[]; model: Sheet; drawing: Drawing | null }
	| { page: number; sheet: Sheet }
	| { fault: string };

let pages: DrawingPages | null = null;

function answer(request: DrawingRequest): DrawingAnswer {
	if ('page' in request) return { page: request.page, sheet: pages!.page(request.page) };
	const drawing = readDxf(decodeDxf(new Uint8Array(request.bytes)));
	pages = new DrawingPages(drawing);
	return { names: pages.names, model: pages.page(1), drawing: request.drawingToo ? drawing : null };
}

self.onmessage = ({ data }: MessageEvent<DrawingRequest>) => {
	try {
		// Sheets are copied and not handed over: the model is looked at again for each sheet it is laid out on.
		self.postMessage(answer(data));
	} catch (error) {
		self.postMessage({
			fault: error instanceof DxfError ? error.message : 'The drawing cannot be read.'
		} satisfies DrawingAnswer);
	}
};
