import { cupboard } from '../../client/cupboard';
import { toast } from '../kit/toast';
import { attempt } from '../platform/api';

/** Keeps a place at hand, or no longer, and says so. */
export async function bookmark(
	project: string,
	place: { id: string; name: string; atHand: boolean },
	done: () => unknown
): Promise<void> {
	const changed = await attempt(() =>
		place.atHand ? cupboard.endAtHand({ project, place: place.id }) : cupboard.keepAtHand({ place: place.id })
	);
	if (!changed) return;
	toast(place.atHand ? `${place.name} is not at hand any more.` : `${place.name} is at hand, under Today.`);
	await done();
}
