import { and, eq } from 'drizzle-orm';
import { PURPOSE_LABEL } from '../../core/revisions/revisions';
import { releaseNumber, replyDayOf, type Expects, type Manifest, type ProofAsked } from '../../core/releases';
import { dayOf, dayWords, dayWordsOf } from '../../core/time/days';
import { daysLater } from '../../core/time/spans';
import { plural } from '../../core/words/sentences';
import { pass, passPerson, releaseRecipient } from '../platform/db/schema';
import { encrypt } from '../platform/auth/encrypted';
import { hashPassword } from '../platform/auth/passwords';
import { newSecret, secretHash } from '../platform/ids';
import type { Acting, ContextOf } from '../platform/runner/act';
import type { ReleaseShare } from './recipients';

/** What goes out beside the documents: their list, signed, and the cover note. */
export interface Paper {
	manifest: Manifest;
	hash: string;
	signature: string;
	note: { hash: string; size: number };
}

/** What one recipient gets. */
export interface Sent {
	to: ReleaseShare;
	paper: Paper;
	documents: number;
}

/** What the mail says of what the pass asks for. */
export const ASKS: Record<ProofAsked, string> = {
	nothing: '',
	code: ' It asks for a code, which it mails to this address.',
	password: ' It asks for a password, which comes to you another way.',
	account: ' It opens once you have signed in to Cupboard.'
};

/** What the mail asks of who gets it. */
const ASKED: Record<Expects, string[]> = {
	verdicts: ['Please confirm that it arrived, and give a verdict on each document.'],
	receipt: ['Please confirm that it arrived.'],
	information: ['It is for your information; nothing is asked of you.']
};

type Issuing = Pick<
	ContextOf['release'] & Acting,
	'tx' | 'project' | 'person' | 'release' | 'services' | 'now' | 'newId' | 'mail'
>;

/** Makes the pass of one recipient and sends it. */
export async function sendTo(
	{ tx, project: here, person: by, release: about, services, now, newId, mail }: Issuing,
	{ to, paper, documents }: Sent,
	input: { passDays: number; password: string | null }
): Promise<{ recipient: string; name: string; link: string }> {
	const secret = newSecret();
	const passId = newId();
	const endsAt = daysLater(now, input.passDays);
	await tx.insert(pass).values({
		id: passId,
		projectId: here.id,
		releaseId: about.id,
		secretHash: secretHash(secret),
		sealedSecret: encrypt(services.config.secret, 'pass', secret),
		audience: to.asks === 'code' ? 'named' : to.asks === 'account' ? 'accounts' : 'anyone',
		passwordHash: input.password === null ? null : await hashPassword(input.password),
		holderName: to.name,
		holderEmail: to.email,
		createdBy: by.id,
		endsAt,
		createdAt: now
	});
	if (to.asks === 'code') await tx.insert(passPerson).values({ passId, email: to.email });
	await tx
		.update(releaseRecipient)
		.set({
			passId,
			manifest: paper.manifest,
			manifestHash: paper.hash,
			manifestSignature: paper.signature,
			coverNoteHash: paper.note.hash
		})
		.where(and(eq(releaseRecipient.releaseId, about.id), eq(releaseRecipient.recipientId, to.recipientId)));
	const link = `${services.config.origin}/pass/${secret}`;
	const replyBy = replyDayOf(about, to);
	await mail(
		{ name: to.name, address: to.email },
		`${here.code} release ${releaseNumber(about.number)}: ${about.title}`,
		{
			says: [
				`${by.name} sends you release ${releaseNumber(about.number)}, “${about.title}”.`,
				...(about.words ? about.words.split(/\n+/) : []),
				...ASKED[to.expects]
			],
			facts: [
				['Purpose', PURPOSE_LABEL[about.purpose]],
				['Holds', plural(documents, 'document')],
				...(replyBy ? [['Please reply by', dayWords(replyBy, dayOf(now, here.timeZone))] as const] : []),
				['Open until', dayWordsOf(endsAt, here.timeZone, now)]
			],
			link: { word: 'Open the release', href: link },
			after: [to.asks === 'account' ? ASKS.account.trim() : `No account is needed.${ASKS[to.asks]}`]
		},
		[link]
	);
	return { recipient: to.recipientId, name: to.name, link };
}
