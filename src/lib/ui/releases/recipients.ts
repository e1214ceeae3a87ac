import { cupboard, type AnswerOf, type InputOf } from '../../client/cupboard';
import type { Expects, ProofAsked } from '../../core/releases';
import { isKnown, personOf, type Pickable, type Picked } from '../kit/person';

/** Somebody who is to get a release, as they are chosen. */
export interface Receiver {
	to: Picked;
	/** Name and company, which are asked for where somebody is not on the distribution list yet. */
	name: string;
	company: string;
	expects: Expects;
	/** Empty for the day that the release itself asks for. */
	replyBy: string;
	asks: ProofAsked;
	documents: string[] | null;
}

/** Somebody just chosen: asked for verdicts on everything, by an open link. */
const receiverOf = (to: Picked, name: string, company: string): Receiver => ({
	to,
	name,
	company,
	expects: 'verdicts',
	replyBy: '',
	asks: 'nothing',
	documents: null
});

/** Those who get a release already, as they are chosen anew. */
export const receiversOf = (recipients: AnswerOf<'releaseView'>['recipients']): Receiver[] =>
	recipients.map(({ recipient, name, company, email, expects, replyBy, asks, documents }) => ({
		to: personOf({ id: recipient, name, email, outside: true, note: company }),
		name,
		company,
		expects,
		replyBy: replyBy ?? '',
		asks,
		documents
	}));

/** Those whom the distribution list proposes, as they are chosen. */
export async function proposedReceivers(
	asked: InputOf<'proposedRecipients'>,
	listed: AnswerOf<'people'>['recipients']
): Promise<Receiver[]> {
	const { recipients } = await cupboard.proposedRecipients(asked);
	return recipients.flatMap(({ recipient, ...share }) => {
		const one = listed.find((other) => other.id === recipient);
		if (!one) return [];
		const to = personOf({
			id: recipient,
			name: one.name,
			email: one.email,
			outside: true,
			note: one.company
		});
		return [{ ...receiverOf(to, one.name, one.company), ...share }];
	});
}

/** What a change of who gets a release is asked with; whoever is new joins the distribution list first, once. */
export async function sentTo(project: string, receivers: readonly Receiver[]) {
	const rows = [];
	for (const one of receivers) {
		const { name, company, expects, replyBy, asks, documents } = one;
		if (!isKnown(one.to)) {
			const { email } = one.to;
			const { id } = await cupboard.addRecipient({ project, email, name, company });
			one.to = personOf({ id, name, email, outside: true, note: company });
		}
		rows.push({
			recipient: one.to.id,
			expects,
			replyBy: expects === 'verdicts' && replyBy ? replyBy : null,
			asks,
			documents
		});
	}
	return rows;
}

/** Those whom a picker offers: the distribution list, and beside it the address book, by their mail address. */
export async function recipientsToPick(project: string, listed: AnswerOf<'people'>['recipients']) {
	const { people } = await cupboard.addressBook({ project });
	const book = people.filter((one) => one.outside && !listed.some((known) => known.email === one.email));
	const known: Pickable[] = [
		...listed.map(({ company, ...one }) => personOf({ ...one, outside: true, note: company })),
		...book.map(({ name, email, company }) =>
			personOf({
				id: email,
				name,
				email,
				outside: true,
				note: [company, 'from the address book'].filter(Boolean).join(', ')
			})
		)
	];
	return {
		known,
		/** Somebody as they were picked; those of the address book are new to the list, with what is known of them. */
		receiver(one: Picked): Receiver {
			const kept = book.find((other) => isKnown(one) && other.email === one.id);
			if (kept) return receiverOf({ email: kept.email }, kept.name, kept.company ?? '');
			const on = listed.find((other) => isKnown(one) && other.id === one.id);
			return receiverOf(one, on?.name ?? '', on?.company ?? '');
		}
	};
}
