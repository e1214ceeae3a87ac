import type { EffectRow } from '../../core/access/rows';
import { plural } from '../platform/words';

/** What a change of access means, said before it is done: "11 people lose 88 documents; 2 documents are in hand". */
export function effectText(effect: EffectRow): string {
	if (!effect.people) return 'Nobody gains or loses anything by it.';
	const lost = effect.lines.some((l) => l.lost > 0);
	const gained = effect.lines.some((l) => l.gained > 0);
	const people = plural(effect.people, 'person', 'people');
	const one = effect.people === 1;
	const what = lost
		? `${people} ${one ? 'loses' : 'lose'} sight of ${plural(effect.documents, 'document')}`
		: gained
			? `${people} ${one ? 'gains' : 'gain'} sight of ${plural(effect.documents, 'document')}`
			: `${people} ${one ? 'keeps' : 'keep'} sight with another level`;
	return `${what}${effect.inHand ? `; they have ${effect.inHand} of them in hand` : ''}.`;
}
