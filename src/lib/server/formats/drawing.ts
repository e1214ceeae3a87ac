import { readFile } from 'node:fs/promises';
import { editsFrom, NO_EDITS, type PlainEdits } from '../../core/drawing/item';
import { writeEdited } from '../../core/drawing/write';
import { layerOf } from '../../core/drawing/edited';
import { decodeDxf, readDxf } from '../../core/dxf/read';

/** What the worker needs to write an edited drawing. */
export interface DrawingTask {
	task: 'drawing';
	/** Where the bytes of its base lie. */
	path: string;
	edits: PlainEdits;
}

/** What the worker needs to say on which layers a drawing's entities lie. */
export interface LayersTask {
	task: 'layers';
	path: string;
}

/** The layers of a drawing's entities, as a shared drawing keeps them. */
export interface DrawingLayers {
	names: string[];
	layers: number[];
}

/** Writes an edited drawing as DXF; runs in a worker thread. */
export async function writeDrawingTask({ path, edits }: DrawingTask): Promise<Uint8Array> {
	return writeEdited(await readFile(path), editsFrom(edits));
}

/** Says on which layer each entity lies; runs in a worker thread. Raises `DxfError` for what is no drawing. */
export async function drawingLayersTask({ path }: LayersTask): Promise<DrawingLayers> {
	const bytes = await readFile(path);
	const drawing = readDxf(decodeDxf(bytes));
	// What can be read but not written would be lost work at the hand-in.
	writeEdited(bytes, NO_EDITS);
	const places = new Map<string, number>();
	const layers = drawing.entities.map((entity) => {
		const name = layerOf(entity);
		if (!places.has(name)) places.set(name, places.size);
		return places.get(name)!;
	});
	return { names: [...places.keys()], layers };
}
