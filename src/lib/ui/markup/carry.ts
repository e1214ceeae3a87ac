import type { Mark } from '../../core/markup/mark';
import { boxOf } from '../../core/markup/shape';
import { compareDrawn } from '../compare/ask';
import { SheetPair, type Side } from '../compare/sheet-pair';

/** Units of the sheet in a pixel at which PDF pages are compared (72 points and 150 dots an inch). */
const POINTS_PER_PIXEL = 72 / 150;

interface Area {
	left: number;
	top: number;
	right: number;
	bottom: number;
}

const meets = (a: Area, b: Area) =>
	a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;

/**
 * Which marks stand where the sheet has changed between two versions.
 * Raises an Error whose message is a sentence when the two cannot be compared.
 */
export async function changedUnder(
	marks: Mark[],
	before: Side,
	after: Side,
	signal: AbortSignal
): Promise<string[]> {
	const pair = await SheetPair.open(before, after, signal);
	try {
		const found: string[] = [];
		for (const page of new Set(marks.map((m) => m.page))) {
			const places = await changesOn(pair, page, after.mediaType, signal);
			for (const mark of marks) {
				if (mark.page !== page) continue;
				const box = boxOf(mark.points);
				const area = {
					left: box.x - mark.size,
					top: box.y - mark.size,
					right: box.x + box.w + mark.size,
					bottom: box.y + box.h + mark.size
				};
				if (places.some((p) => meets(area, p))) found.push(mark.id);
			}
		}
		return found;
	} finally {
		pair.close();
	}
}

/** The places that changed on a page, in lasting coordinates. */
async function changesOn(
	pair: SheetPair,
	page: number,
	mediaType: string,
	signal: AbortSignal
): Promise<Area[]> {
	if (pair.changes) {
		const changes = await pair.changes;
		return changes.map(({ box: [left, low, right, high] }) => ({ left, right, top: low, bottom: high }));
	}
	const both = await pair.render(page);
	const { places, shift } = await compareDrawn(both, {}, signal);
	const full = await pair.after.size(page);
	const k = (full.width / both.after.width) * (mediaType === 'application/pdf' ? POINTS_PER_PIXEL : 1);
	return places.map((p) => ({
		left: (p.x - shift.x) * k,
		top: (p.y - shift.y) * k,
		right: (p.x + p.w - shift.x) * k,
		bottom: (p.y + p.h - shift.y) * k
	}));
}
