import type { AnswerOf } from '../../client/cupboard';
import type { Pickable } from '../kit/person';

/** Whom a remark can name: people first, then departments, as they can be picked. */
export const mentionedOf = ({ people, departments }: AnswerOf<'mentionable'>): Pickable[] =>
	[...people, ...departments].map((one) => ({ ...one, people: one.kind === 'person' ? 1 : 0 }));
