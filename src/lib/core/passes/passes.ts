/** Who may use a pass, from the narrowest: people it names, who prove their mail address; accounts; whoever holds it. */
export const AUDIENCES = ['named', 'accounts', 'anyone'] as const;
export type Audience = (typeof AUDIENCES)[number];

/** What a pass allows. Times are ISO 8601. */
export interface PassTerms {
	audience: Audience;
	emails: readonly string[];
	/** Whether it asks for a password. */
	password: boolean;
	endsAt: string;
	maxUses: number | null;
	mayDownload: boolean;
	stamped: boolean;
}

/**
 * In which ways a change of a pass lets more people in, for longer, or to more; empty when it does not.
 * @param dayWords a moment as a day that people read
 */
export function widenings(before: PassTerms, after: PassTerms, dayWords: (at: string) => string): string[] {
	const added = after.emails.filter((e) => !before.emails.includes(e));
	const more: [boolean, string][] = [
		[
			AUDIENCES.indexOf(after.audience) > AUDIENCES.indexOf(before.audience),
			after.audience === 'anyone'
				? 'anyone who holds the link may use it'
				: 'people with an account may use it'
		],
		[after.audience === 'named' && added.length > 0, `${added.join(', ')} may use it`],
		[before.password && !after.password, 'it asks for no password any more'],
		[after.endsAt > before.endsAt, `it works until ${dayWords(after.endsAt)}`],
		[
			before.maxUses !== null && (after.maxUses === null || after.maxUses > before.maxUses),
			after.maxUses === null ? 'it may be used without limit' : `it may be used ${after.maxUses} times`
		],
		[!before.mayDownload && after.mayDownload, 'files may be taken'],
		[after.mayDownload && before.stamped && !after.stamped, 'copies carry no stamp any more']
	];
	return more.flatMap(([is, sentence]) => (is ? [sentence] : []));
}
