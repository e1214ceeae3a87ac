import type { ChangedPlace } from '../../core/compare/sheets';
import type { DrawingChange } from '../../core/compare/drawings';

/** What happened at a changed place of a sheet. */
export function placeWords({ takenAway, added }: Pick<ChangedPlace, 'takenAway' | 'added'>): string {
	if (!takenAway) return 'added';
	if (!added) return 'taken away';
	return 'taken away and added';
}

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
