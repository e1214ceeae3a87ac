import { CONTRACTS } from '../../contract';
import { lookingOnly, type HeldLock } from '../../core/access/may';
import { told } from '../../core/acts/answer';
import { mayAt, PLACE_ACTS } from '../../core/places/may';
import type { ContextOf } from '../platform/runner/act';
import { spotFacts } from '../platform/runner/locate';

/** What the contract of an act at a place asks for. */
const ASKED = new Map(
	CONTRACTS.flatMap(({ name, at }) => (at.kind === 'place' ? [[name, at] as const] : []))
);

/** What the reader can do at a place now, as the acts would answer. */
export function canAt(context: ContextOf['place'], archived: boolean, lock: HeldLock | null) {
	const facts = spotFacts(context, context.place, archived, lock, context.now);
	const looksAsOther = context.self.id !== context.person.id;
	return told(PLACE_ACTS, (name) => (looksAsOther ? lookingOnly() : mayAt(ASKED.get(name)!, facts)));
}
