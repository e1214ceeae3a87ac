import { CONTRACTS } from '../../contract';
import type { HeldLock } from '../../core/access/may';
import { mayAt, PLACE_ACTS } from '../../core/places/may';
import type { ContextOf } from '../platform/runner/act';
import { canNow } from '../platform/runner/can';
import { spotFacts } from '../platform/runner/locate';

/** What the contract of an act at a place asks for. */
const ASKED = new Map(
	CONTRACTS.flatMap(({ name, at }) => (at.kind === 'place' ? [[name, at] as const] : []))
);

/** What the reader can do at a place now, as the acts would answer. */
export function canAt(context: ContextOf['place'], archived: boolean, lock: HeldLock | null) {
	const facts = spotFacts(context, context.place, archived, lock, context.now);
	return canNow(context, PLACE_ACTS, (name) => mayAt(ASKED.get(name)!, facts));
}
