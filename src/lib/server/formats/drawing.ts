import { readFile } from 'node:fs/promises';
import { editsFrom, NO_EDITS, type PlainEdits } from '../../core/drawing/item';
import { writeEdited } from '../../core/drawing/write';
import { layerOf } from '../../core/drawing/edited';
import { keyOf } from '../../core/drawing/shared';
import { withTitleBlock, type TitleBlockWords } from '../../core/drawing/title-block';
import { decodeDxf, readDxf } from '../../core/dxf/read';
import { titleBlockOf } from '../../core/dxf/pages';

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

/** What the worker needs to write the title block of a drawing. */
export interface TitleBlockTask {
	task: 'title-block';
	path: string;
	to: TitleBlockWords;
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

/**
 * Writes number and revision in the title block of a drawing; runs in a worker thread. Null where it has none that can be
 * written so that it is read as wanted. Raises `DxfError` for what is no drawing.
 */
export async function titleBlockTask({ path, to }: TitleBlockTask): Promise<Uint8Array | null> {
	const bytes = await readFile(path);
	const says = titleBlockOf(bytes);
	const made = withTitleBlock(bytes, says, to);
	if (!made) return null;
	const read = titleBlockOf(made);
	const fits = read.number === to.number && (says.revision === null || read.revision === to.revision);
	return fits ? made : null;
}

/** Says on which layer each entity lies; runs in a worker thread. Raises `DxfError` for what is no drawing. */
export async function drawingLayersTask({ path }: LayersTask): Promise<DrawingLayers> {
	const bytes = await readFile(path);
	const drawing = readDxf(decodeDxf(bytes));
	// What can be read but not written would be lost work at the hand-in.
	writeEdited(bytes, NO_EDITS);
	const names: string[] = [];
	const places = new Map<string, number>();
	const placeOf = (name: string) => {
		const key = keyOf(name);
		if (!places.has(key)) places.set(key, names.push(name) - 1);
		return places.get(key)!;
	};
	const layers = drawing.entities.map((entity) => placeOf(layerOf(entity)));
	// Layers on which nothing lies yet can be drawn on, and belong to somebody too.
	for (const { name } of drawing.layers.values()) placeOf(name);
	return { names, layers };
}
