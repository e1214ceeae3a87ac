import type { Look } from '../../core/markup/look';
import type { Mark, Point, Scale } from '../../core/markup/mark';

/** A mark as it is drawn on a sheet. */
export interface DrawnMark {
	mark: Mark;
	/** Its points in the view. */
	points: Point[];
	look: Look;
	/** Width of a line in units of the sheet. */
	width: number;
	scale: Scale | null;
	unit: string;
}
