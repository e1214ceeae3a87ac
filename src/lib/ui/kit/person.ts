import type { Known } from '../../core/access/invite';

/** Somebody or some people that can be picked, with what else is to be known before one does. */
export type Pickable = Known & {
	/** Such as "not come in yet", or a company. */
	note?: string;
};

/** Who was picked: somebody known, or a newcomer by mail address. */
export type Picked = Pickable | { email: string };

/** Whether somebody picked is known already. */
export const isKnown = (one: Picked): one is Pickable => 'kind' in one;

/** A person as they can be picked. */
export const personOf = (one: {
	id: string;
	name: string;
	email?: string;
	outside?: boolean;
	note?: string;
}): Pickable => ({ kind: 'person', people: 1, ...one });

/** The members of a project as they can be picked, each once however many departments they are in. */
export function membersOf(
	members: readonly {
		id: string;
		name: string;
		email: string;
		outside: boolean;
		cameIn: boolean;
		blockedAt: string | null;
	}[]
): Pickable[] {
	return [...new Map(members.map((one) => [one.id, one])).values()].map(
		({ id, name, email, outside, cameIn, blockedAt }) =>
			personOf({
				id,
				name,
				email,
				outside,
				...(blockedAt ? { note: 'kept out' } : cameIn ? {} : { note: 'not come in yet' })
			})
	);
}
