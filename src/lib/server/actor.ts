import type { person } from './db/schema';

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
}
