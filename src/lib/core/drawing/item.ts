import { z } from 'zod';

/** Things that people add to a drawing. */
export const ITEM_KINDS = ['line', 'polyline', 'circle', 'arc', 'text', 'block', 'copy'] as const;

export type XY = readonly [x: number, y: number];

const coordinate = z.number().min(-1e12).max(1e12);
const point = z.tuple([coordinate, coordinate]);
export const layerName = z
	.string()
	.min(1)
	.max(255)
	// What DXF forbids in names, and what would end a line of the file.
	.refine((name) => !/[<>/\\":;?*|=`\n\r]/.test(name), 'This is no name of a layer.');

/** Something that was added to a drawing, in drawing units; angles in degrees, counter-clockwise. */
export const itemSchema = z.object({
	kind: z.enum(ITEM_KINDS),
	layer: layerName,
	/** Ends, corners, centre or insertion point; for a copy how far it lies from what it is a copy of. */
	points: z.array(point).min(1).max(5_000),
	/** Of a circle or arc. */
	radius: z.number().positive().max(1e12).optional(),
	/** Where an arc begins and ends. */
	from: z.number().min(-360).max(720).optional(),
	to: z.number().min(-360).max(720).optional(),
	closed: z.boolean().optional(),
	text: z.string().max(2_000).optional(),
	/** Of a text's letters. */
	height: z.number().positive().max(1e9).optional(),
	/** By which a text or block is turned. */
	turn: z.number().min(-360).max(360).optional(),
	/** Name of the block that is inserted, and how many times as large. */
	block: z.string().max(255).optional(),
	scale: z.number().positive().max(1e6).optional(),
	/** Values of the block's attributes, in the order in which the block defines them. */
	attributes: z.array(z.string().max(2_000)).max(200).optional(),
	/** The entity of the file that a copy is of. */
	of: z.int().min(0).optional()
});
export type ItemFields = z.output<typeof itemSchema>;
export interface Item extends ItemFields {
	id: string;
}

/** What is different of an entity of the file. */
export const changeSchema = z.object({
	removed: z.literal(true).optional(),
	/** How far it was moved. */
	move: point.optional(),
	layer: layerName.optional(),
	/** Words of a text, or of a dimension; an empty one gives a dimension its measure back. */
	text: z.string().max(2_000).optional(),
	/** New values of attributes, by their place among the entity's attributes. */
	attributes: z.record(z.string().regex(/^\d{1,3}$/), z.string().max(2_000)).optional()
});
export type Change = z.output<typeof changeSchema>;

/** Everything that was done to a drawing since its base. */
export interface Edits {
	/** By the place of the entity in the file, model and paper together. */
	changes: ReadonlyMap<number, Change>;
	/** In a lasting order. */
	items: readonly Item[];
	/** Layers that were switched, by name in capitals. */
	layers: ReadonlyMap<string, { off: boolean }>;
}

export const NO_EDITS: Edits = { changes: new Map(), items: [], layers: new Map() };

/** Edits as JSON, for handing them to a worker. */
export interface PlainEdits {
	changes: [number, Change][];
	items: Item[];
	layers: [string, { off: boolean }][];
}
export const plainEdits = (edits: Edits): PlainEdits => ({
	changes: [...edits.changes],
	items: [...edits.items],
	layers: [...edits.layers]
});
export const editsFrom = (plain: PlainEdits): Edits => ({
	changes: new Map(plain.changes),
	items: plain.items,
	layers: new Map(plain.layers)
});
