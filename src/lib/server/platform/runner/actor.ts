import type { person } from '../db/schema';

export type Person = Pick<typeof person.$inferSelect, 'id' | 'name' | 'email'>;

/** Who acts: a signed-in person, or nobody known (a pass is proven by the secret in its address). */
export type Actor = {
	person: Person;
	via: 'session' | 'token';
	/** What a token may be used for; everything when left out. */
	scope?: 'read' | 'all';
	/** Whose eyes the person looks through in one project: views answer as for them, and nothing can be changed. */
	trying?: { projectId: string; personId: string };
} | null;

/** What the holder of a pass has proven in this browser: that they opened it, and where asked, their mail address. */
export interface Proof {
	passId: string;
	email: string | null;
	/** Milliseconds since 1970. */
	endsAt: number;
	/** What it stands on; see `proofOf`. */
	of: string;
}

/** As whom the trail tells of somebody with a pass: of the people it names, each by the address they proved. */
export function passActor(
	held: { id: string; holderName: string },
	proof: Pick<Proof, 'email'> | null | undefined
): { id: string; name: string } {
	return proof?.email
		? { id: `pass:${held.id}:${proof.email}`, name: `${proof.email} (${held.holderName})` }
		: { id: `pass:${held.id}`, name: held.holderName };
}
