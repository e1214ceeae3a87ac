import { and, eq, inArray, notInArray } from 'drizzle-orm';
import * as contract from '../../contract/passes';
import { widenings, type PassTerms } from '../../core/passes/passes';
import { releaseNumber } from '../../core/releases';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { PASS_RULES, type PassAct } from '../../core/passes/may';
import { dayWordsOf } from '../../core/time/days';
import { daysLater } from '../../core/time/spans';
import type { Tx } from '../platform/db';
import { pass, passPerson, place } from '../platform/db/schema';
import { decrypt } from '../platform/auth/encrypted';
import { hashPassword } from '../platform/auth/passwords';
import type { Reach } from '../access/reach';
import { does, type Pass } from '../platform/runner/act';
import { endOfDay } from '../access/entries';
import { checkSettings, MOST_DAYS, nameAt, ownPasses, passFacts, passMail } from './acts';

interface Here {
	tx: Tx;
	project: { id: string };
	reach: Reach;
	person: { id: string };
	now: Date;
}

/** A pass that somebody may change or send, still open, with what it leads to in words. */
async function askedPass(context: Here, act: PassAct, passId: string) {
	const [own] = await ownPasses(context.tx, context, [passId]);
	if (!own) throw new Problem('not-found', 'There is no such pass, or it is not yours.');
	const { pass: held, release, runs } = own;
	orRefuse(PASS_RULES[act](passFacts(held, runs, context.person.id, context.now)));
	const what = release ? `release ${releaseNumber(release)}` : await nameAt(context.tx, held.placeId);
	const named = await context.tx
		.select({ email: passPerson.email })
		.from(passPerson)
		.where(eq(passPerson.passId, passId));
	return { held, release, what, emails: named.map((n) => n.email) };
}

const termsOf = (held: Pass, emails: string[]): PassTerms => ({
	audience: held.audience,
	emails,
	password: held.passwordHash !== null,
	endsAt: held.endsAt.toISOString(),
	maxUses: held.maxUses,
	mayDownload: held.mayDownload,
	stamped: held.stamped
});

export const changePass = does(contract.changePass, {
	async run(context, input) {
		const { tx, project, now, tell } = context;
		const { held, release, what, emails: before } = await askedPass(context, 'changePass', input.pass);
		const emails = input.emails ? [...new Set(input.emails)] : before;
		const endsAt = input.until === undefined ? held.endsAt : endOfDay(input.until, project, now)!;
		if (endsAt > daysLater(now, MOST_DAYS))
			throw new Problem('invalid', 'A pass is open for two years at most.', { field: 'until' });
		const next = {
			holderName: input.for ?? held.holderName,
			audience: input.audience ?? held.audience,
			passwordHash:
				input.password === undefined
					? held.passwordHash
					: input.password === null
						? null
						: await hashPassword(input.password),
			endsAt,
			maxUses: input.maxUses === undefined ? held.maxUses : input.maxUses,
			mayDownload: input.mayDownload ?? held.mayDownload,
			stamped: input.stamped ?? (input.mayDownload === false ? false : held.stamped),
			withMarks: input.withMarks ?? (input.mayDownload === false ? false : held.withMarks)
		};
		if (held.releaseId && (!next.mayDownload || next.stamped || next.withMarks))
			throw new Problem('invalid', 'What a release gives is whole: it is taken as it was issued.');
		if (held.placeId) {
			const [at] = await tx.select().from(place).where(eq(place.id, held.placeId));
			checkSettings(
				{ ...next, emails, password: next.passwordHash, version: null, embeddable: held.embeddable },
				at!.kind,
				project.settings.outsideLevel
			);
		}
		const wider = widenings(termsOf(held, before), termsOf({ ...held, ...next }, emails), (at) =>
			dayWordsOf(at, project.timeZone, now)
		);
		if (wider.length && !input.wider)
			throw new Problem('conflict', `This makes the pass wider: ${wider.join('; ')}. Nothing was changed.`, {
				wider
			});
		const changed = [
			...Object.entries(next)
				.filter(([key, value]) => String(value) !== String(held[key as keyof Pass]))
				.map(([key]) => CALLED[key]!),
			...(emails.join() === before.join() ? [] : ['people'])
		];
		if (!changed.length) return { changed: false };
		await tx.update(pass).set(next).where(eq(pass.id, held.id));
		await tx
			.delete(passPerson)
			.where(and(eq(passPerson.passId, held.id), notInArray(passPerson.email, [...emails, ''])));
		if (emails.length)
			await tx
				.insert(passPerson)
				.values(emails.map((address) => ({ passId: held.id, email: address })))
				.onConflictDoNothing();
		tell({
			kind: 'pass.changed',
			placeId: held.placeId,
			releaseId: held.releaseId,
			details: {
				pass: held.id,
				for: next.holderName,
				changed,
				wider,
				...(release ? { number: release } : { place: what })
			}
		});
		return { changed: true };
	}
});

/** How the trail calls what of a pass was changed. */
const CALLED: Record<string, string> = {
	holderName: 'holder',
	audience: 'who may use it',
	passwordHash: 'password',
	endsAt: 'end',
	maxUses: 'uses',
	mayDownload: 'taking',
	stamped: 'stamp',
	withMarks: 'marks'
};

export const sendPass = does(contract.sendPass, {
	async run(context, input) {
		const { tx, project, person: by, now, services, mail, tell } = context;
		const { held, release, what } = await askedPass(context, 'sendPass', input.pass);
		const link = addressOf(services.config, held);
		const to = [...new Set(input.emails)];
		if (held.audience === 'named') {
			const named = await tx
				.select({ email: passPerson.email })
				.from(passPerson)
				.where(and(eq(passPerson.passId, held.id), inArray(passPerson.email, to)));
			const missing = to.filter((address) => !named.some((n) => n.email === address));
			if (missing.length)
				throw new Problem(
					'invalid',
					`The pass is for people it names, and ${missing.join(', ')} is not among them. Name them first.`,
					{ field: 'emails' }
				);
		}
		for (const address of to)
			await mail(
				{ name: held.holderName, address },
				...passMail(project, by.name, {
					what,
					link,
					until: dayWordsOf(held.endsAt, project.timeZone, now),
					password: held.passwordHash !== null,
					message: input.message
				})
			);
		tell({
			kind: 'pass.sent',
			placeId: held.placeId,
			releaseId: held.releaseId,
			details: {
				pass: held.id,
				for: held.holderName,
				to,
				...(release ? { number: release } : { place: what })
			}
		});
		return { mailed: to.length };
	}
});

/** The address of a pass, as it was kept for who made it. */
export function addressOf(
	{ origin, secret }: { origin: string; secret: string },
	held: Pick<Pass, 'sealedSecret'>
): string {
	const code = held.sealedSecret && decrypt(secret, 'pass', held.sealedSecret);
	if (!code)
		throw new Problem('conflict', 'The address of this pass was not kept. Withdraw it and make a new one.');
	return `${origin}/pass/${code}`;
}
