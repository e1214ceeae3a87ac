import type { Node } from 'prosemirror-model';
import { DEEPEST } from './schema';

/**
 * The numbers of a text's headings and captions, by the position of the block: `2.1` for headings, `Figure 3` and
 * `Table 1` for captions. They are worked out, never written, so they are right whoever adds what where.
 */
export function numbersIn(doc: Node): Map<number, string> {
	const found = new Map<number, string>();
	const at = new Array<number>(DEEPEST).fill(0);
	const captions: Record<string, number> = {};
	doc.forEach((block, offset) => {
		if (block.type.name === 'heading') {
			const level = block.attrs.level as number;
			at[level - 1]!++;
			at.fill(0, level);
			// A level that was left out counts as the first of its kind, not as nothing.
			for (let i = 0; i < level - 1; i++) at[i] ||= 1;
			found.set(offset, at.slice(0, level).join('.'));
		} else if (block.type.name === 'caption') {
			const of = block.attrs.of as string;
			captions[of] = (captions[of] ?? 0) + 1;
			found.set(offset, `${of === 'table' ? 'Table' : 'Figure'} ${captions[of]}`);
		}
	});
	return found;
}
