import type { ChangedPlace } from '../../core/compare/sheets';
import type { DrawingChange } from '../../core/compare/drawings';

/** What happened at a changed place of a sheet. */
export function placeWords({ takenAway, added }: Pick<ChangedPlace, 'takenAway' | 'added'>): string {
	if (!takenAway) return 'added';
	if (!added) return 'taken away';
	return 'taken away and added';
}

/** An entity's type as people in a drawing office call it. */
const ENTITY: Record<string, string> = {
	LINE: 'line',
	LWPOLYLINE: 'polyline',
	POLYLINE: 'polyline',
	CIRCLE: 'circle',
	ARC: 'arc',
	ELLIPSE: 'ellipse',
	SPLINE: 'spline',
	TEXT: 'text',
	MTEXT: 'text',
	DIMENSION: 'dimension',
	INSERT: 'block',
	HATCH: 'hatch',
	SOLID: 'solid',
	LEADER: 'leader',
	POINT: 'point'
};

export const entityWord = (type: string) => ENTITY[type] ?? type.toLowerCase();

export const CHANGE_WORD: Record<DrawingChange['kind'], string> = {
	added: 'added',
	removed: 'taken away',
	moved: 'moved',
	edited: 'edited'
};

/** What was edited or how far a thing was moved, in one line. */
export function changeWords(change: DrawingChange): string {
	return change.what.map((w) => `${w.property}: ${w.before || '(none)'} → ${w.after || '(none)'}`).join('; ');
}
