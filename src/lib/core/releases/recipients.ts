/** Who gets a release: what of it and what for (rule T9). */

/** What is asked of who gets a release: a verdict on each document, that it arrived, or nothing. */
export const EXPECTS = ['verdicts', 'receipt', 'information'] as const;
export type Expects = (typeof EXPECTS)[number];
export const EXPECTS_LABEL: Record<Expects, string> = {
	verdicts: 'verdicts',
	receipt: 'receipt only',
	information: 'for information'
};

/** How they prove who they are before their pass opens. */
export const PROOFS = ['nothing', 'code', 'password', 'account'] as const;
export type ProofAsked = (typeof PROOFS)[number];
export const PROOF_LABEL: Record<ProofAsked, string> = {
	nothing: 'nothing, the link opens it',
	code: 'a code by mail',
	password: 'a password',
	account: 'their account'
};

/** Most recipients of one release. */
export const MOST_RECIPIENTS = 40;

/** What somebody gets of a release. */
export interface Share {
	name: string;
	expects: Expects;
	/** Which of its documents, by their ids; null for all of them. */
	documents: readonly string[] | null;
}

export const gets = ({ documents }: Pick<Share, 'documents'>, document: string): boolean =>
	documents === null || documents.includes(document);

/**
 * Why a release cannot go out to those it names, in a sentence; null where it can. Nobody gets nothing, and no document
 * goes to nobody.
 */
export function sharingFault(
	shares: readonly Share[],
	documents: readonly { id: string; number: string }[]
): string | null {
	if (!shares.length) return 'Nobody gets the release. Choose who does.';
	const empty = shares.find((share) => !documents.some(({ id }) => gets(share, id)));
	if (empty) return `${empty.name} gets none of its documents. Choose some for them, or leave them out.`;
	const lost = documents.find(({ id }) => !shares.some((share) => gets(share, id)));
	return lost ? `${lost.number} goes to nobody. Choose who gets it, or leave it out of the release.` : null;
}

/** The day by which somebody is asked to reply to a release, as YYYY-MM-DD; null for none. */
export const replyDayOf = (
	release: { replyBy: string | null },
	to: { expects: Expects; replyBy: string | null }
): string | null => (to.expects === 'verdicts' ? (to.replyBy ?? release.replyBy) : null);

/** A recipient as who approves a release sees them. Documents by their numbers; null for all. */
export interface Receiving {
	name: string;
	company: string;
	email: string;
	expects: Expects;
	/** YYYY-MM-DD; null for the day that the release itself asks for. */
	replyBy: string | null;
	asks: ProofAsked;
	documents: readonly string[] | null;
}

/** Who gets what of a release, and how, in one line. */
export const receivingWords = (one: Receiving): string =>
	[
		`${one.name}, ${one.company} <${one.email}>: ${one.documents ? one.documents.join(', ') : 'all of it'}`,
		EXPECTS_LABEL[one.expects],
		...(one.replyBy && one.expects === 'verdicts' ? [`reply by ${one.replyBy}`] : []),
		...(one.asks === 'nothing' ? [] : [`asks for ${PROOF_LABEL[one.asks]}`])
	].join(', ');
