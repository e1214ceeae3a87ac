import { indexColour } from './colours';
import { numberOf, valueOf, type Drawing, type Group } from './read';

/** What an entity is drawn with. */
export interface Style {
	layer: string;
	/** 0xRRGGBB, or -1 for ink. */
	colour: number;
	lineType: string;
	/** Hundredths of a millimetre; -3 for the default. */
	weight: number;
}

export const PLAIN_STYLE: Style = { layer: '0', colour: -1, lineType: 'CONTINUOUS', weight: -3 };

/** What an entity draws with: its own, its layer's, or its block's. Layer 0 in a block is the insertion's. */
export function styleOf(drawing: Drawing, groups: readonly Group[], from: Style): Style {
	const own = valueOf(groups, 8) ?? '0';
	const layer = own === '0' ? from.layer : own;
	const known = drawing.layers.get(layer.toUpperCase());
	const index = numberOf(groups, 62, 256);
	const trueColour = valueOf(groups, 420);
	const colour =
		trueColour !== null
			? Number(trueColour) & 0xffffff
			: index === 256
				? indexColour(known?.colour ?? 7)
				: index === 0
					? from.colour
					: indexColour(index);
	const lt = (valueOf(groups, 6) ?? 'BYLAYER').toUpperCase();
	const lineType =
		lt === 'BYLAYER' ? (known?.lineType ?? 'CONTINUOUS') : lt === 'BYBLOCK' ? from.lineType : lt;
	const w = numberOf(groups, 370, -1);
	const weight = w === -1 ? (known?.weight ?? -3) : w === -2 ? from.weight : w;
	return { layer, colour, lineType, weight };
}
