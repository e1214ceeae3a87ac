import { numberOf, valueOf, type Drawing, type Entity } from './read';

/** A sheet that a drawing is laid out on (paper space). */
export interface Layout {
	name: string;
	entities: Entity[];
}

/** Most sheets of one drawing. */
const MOST_LAYOUTS = 200;

/** Whether an entity of the file's list stands in the model, and not on the sheet that was open when it was saved. */
export const inModel = (entity: Entity): boolean => numberOf(entity.groups, 67) !== 1;

/**
 * The sheets of a drawing in the order of their tabs. The one that was open when the drawing was saved stands among the
 * file's own entities, the others in blocks that their LAYOUT objects name (DXF reference, OBJECTS, LAYOUT). Sheets on
 * which nothing stands are left out.
 */
export function layoutsOf(drawing: Drawing): Layout[] {
	const open = drawing.entities.filter((e) => !inModel(e));
	const found: Layout[] = [];
	let openTaken = false;
	for (const { name, record } of [...drawing.layouts].sort((a, b) => a.order - b.order)) {
		const blockName = drawing.blockRecords.get(record);
		if (blockName === undefined || /^\*MODEL_SPACE/i.test(blockName)) continue;
		const block = drawing.blocks.get(blockName.toUpperCase())?.entities ?? [];
		const isOpen = /^\*PAPER_SPACE$/i.test(blockName);
		openTaken ||= isOpen;
		found.push({ name, entities: isOpen ? [...open, ...block] : block });
	}
	if (!openTaken && open.length) found.unshift({ name: 'Sheet', entities: open });
	return found.filter((layout) => layout.entities.some(stands)).slice(0, MOST_LAYOUTS);
}

/** Every sheet has a window number 1, which is the sheet itself. */
const stands = (entity: Entity) =>
	entity.type !== 'VIEWPORT' || (numberOf(entity.groups, 69) !== 1 && valueOf(entity.groups, 12) !== null);
