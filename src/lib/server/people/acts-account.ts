import { and, eq, gt, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { LEAST_PASSWORD, MOST_PASSWORD } from '../../core/people/passwords';
import { Problem } from '../../core/acts/problem';
import { daysLater } from '../../core/time/spans';
import type { Tx } from '../platform/db';
import { apiToken, account, invitation, person, place, project, session } from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import { checkPassword, hashPassword, verifyPassword } from '../platform/auth/passwords';
import { checkTries, countTry } from '../platform/auth/tries';
import { defineAct } from '../platform/runner/act';
import { email, id, name } from '../platform/runner/fields';

export const password = z
	.string()
	.min(LEAST_PASSWORD, `A password has at least ${LEAST_PASSWORD} characters.`)
	.max(MOST_PASSWORD, `A password has at most ${MOST_PASSWORD} characters.`);

export const changeName = defineAct({
	name: 'changeName',
	summary: 'Change your own name',
	method: 'PATCH',
	path: '/me',
	input: z.strictObject({ name }),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by, now }, input) {
		await tx.update(person).set({ name: input.name, updatedAt: now }).where(eq(person.id, by.id));
		return { name: input.name };
	}
});

export const changePassword = defineAct({
	name: 'changePassword',
	summary: 'Change your own password; all sessions end',
	method: 'PUT',
	path: '/me/password',
	input: z.strictObject({ current: z.string().max(200), password }),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by, services, now }, input) {
		const own = and(eq(account.userId, by.id), eq(account.providerId, 'credential'));
		const [row] = await tx.select().from(account).where(own);
		await checkTries(services.database, 'guess', by.id);
		if (!row?.password || !(await verifyPassword({ hash: row.password, password: input.current }))) {
			await countTry(services.database, 'guess', by.id);
			throw new Problem('invalid', 'The current password is not right.', { field: 'current' });
		}
		await checkPassword(input.password, by);
		await tx
			.update(account)
			.set({ password: await hashPassword(input.password), updatedAt: now })
			.where(own);
		await endSessions(tx, by.id, now);
		return {};
	}
});

/** Ends every session of somebody whose password changed, and the tokens that were to end with it. */
export async function endSessions(tx: Tx, personId: string, now: Date): Promise<void> {
	await tx.delete(session).where(eq(session.userId, personId));
	await tx
		.update(apiToken)
		.set({ withdrawnAt: now })
		.where(
			and(eq(apiToken.personId, personId), eq(apiToken.endsWithPassword, true), isNull(apiToken.withdrawnAt))
		);
}

/** Longest that a token may last, and how long it lasts when nothing is said, in days. */
const MOST_TOKEN_DAYS = 730;
const TOKEN_DAYS = 365;

export const makeToken = defineAct({
	name: 'makeToken',
	summary: 'Make a personal API token; its secret is shown this once',
	method: 'POST',
	path: '/me/tokens',
	input: z.strictObject({
		name,
		/** For reading only, or for everything you may do. */
		scope: z.enum(['read', 'all']).default('all'),
		days: z
			.number()
			.int()
			.min(1)
			.max(MOST_TOKEN_DAYS, 'A token lasts two years at most.')
			.default(TOKEN_DAYS),
		endsWithPassword: z.boolean().default(false)
	}),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by, now, newId }, input) {
		const tokenId = newId();
		const secret = `cup_${newSecret()}`;
		await tx.insert(apiToken).values({
			id: tokenId,
			personId: by.id,
			name: input.name,
			secretHash: secretHash(secret),
			scope: input.scope,
			endsWithPassword: input.endsWithPassword,
			endsAt: daysLater(now, input.days),
			createdAt: now
		});
		return { id: tokenId, secret };
	}
});

export const withdrawToken = defineAct({
	name: 'withdrawToken',
	summary: 'Withdraw a personal API token',
	method: 'DELETE',
	path: '/me/tokens/{token}',
	input: z.strictObject({ token: id }),
	at: { kind: 'self' },
	events: [],
	async run({ tx, person: by, now }, input) {
		const done = await tx
			.update(apiToken)
			.set({ withdrawnAt: now })
			.where(and(eq(apiToken.id, input.token), eq(apiToken.personId, by.id), isNull(apiToken.withdrawnAt)))
			.returning({ id: apiToken.id });
		if (!done.length) throw new Problem('not-found', 'You have no such token.');
		return {};
	}
});

export const acceptInvitation = defineAct({
	name: 'acceptInvitation',
	summary: 'Set the first password, and the name others see, by the link from the invitation',
	method: 'POST',
	path: '/invitations/{secret}',
	input: z.strictObject({ secret: z.string().max(100), password, name: name.optional() }),
	at: { kind: 'open' },
	events: [],
	async run({ tx, now, newId }, input) {
		const used = await useLink(tx, input.secret, 'invite', now);
		if (!used)
			throw new Problem(
				'not-found',
				'This invitation was used already or has ended. Ask the document controller to send a new one.'
			);
		const [known] = await tx.select().from(person).where(eq(person.id, used.personId));
		const called = input.name ?? known!.name;
		await checkPassword(input.password, { email: known!.email, name: called });
		await setPassword(tx, used.personId, input.password, { id: newId(), now });
		await tx.update(person).set({ emailVerified: true, name: called }).where(eq(person.id, used.personId));
		return { email: known!.email, way: await wayTo(tx, used) };
	}
});

/** Where somebody lands who accepts an invitation: at what they were let into, in its project. */
async function wayTo(tx: Tx, { projectId, placeId }: { projectId: string | null; placeId: string | null }) {
	const [found] = projectId
		? await tx.select({ code: project.code }).from(project).where(eq(project.id, projectId))
		: [];
	if (!found) return '/';
	const [at] = placeId
		? await tx.select({ id: place.id, kind: place.kind }).from(place).where(eq(place.id, placeId))
		: [];
	const code = found.code.toLowerCase();
	return at ? `/${code}/${at.kind === 'document' ? 'document' : 'place'}/${at.id}` : `/${code}`;
}

/** Uses up a link of a kind; null when it was used before, has ended, or never was. */
async function useLink(tx: Tx, secret: string, purpose: 'invite' | 'renew', now: Date) {
	const [used] = await tx
		.update(invitation)
		.set({ usedAt: now })
		.where(
			and(
				eq(invitation.secretHash, secretHash(secret)),
				eq(invitation.purpose, purpose),
				isNull(invitation.usedAt),
				gt(invitation.expiresAt, now)
			)
		)
		.returning();
	return used ?? null;
}

async function setPassword(
	tx: Tx,
	personId: string,
	plain: string,
	make: { id: string; now: Date }
): Promise<void> {
	const hash = await hashPassword(plain);
	const own = and(eq(account.userId, personId), eq(account.providerId, 'credential'));
	const done = await tx.update(account).set({ password: hash, updatedAt: make.now }).where(own).returning();
	if (!done.length)
		await tx.insert(account).values({
			id: make.id,
			accountId: personId,
			providerId: 'credential',
			userId: personId,
			password: hash,
			createdAt: make.now
		});
}

/** How long a link for a forgotten password works, in minutes. */
const RENEW_MINUTES = 60;

export const askRenewal = defineAct({
	name: 'askRenewal',
	summary: 'Ask for a link to set a new password, sent to the mail address of an account',
	method: 'POST',
	path: '/renewals',
	input: z.strictObject({ email }),
	at: { kind: 'open' },
	events: [],
	async run({ tx, services, now, mail }, input) {
		await countTry(services.database, 'renew', input.email);
		const [known] = await tx
			.select({ id: person.id, name: person.name })
			.from(person)
			.innerJoin(account, and(eq(account.userId, person.id), eq(account.providerId, 'credential')))
			.where(and(eq(person.email, input.email), isNull(person.closedAt)));
		// The same answer whether anybody has this address or not.
		const answer = { minutes: RENEW_MINUTES };
		if (!known) return answer;
		const secret = newSecret();
		const unused = and(
			eq(invitation.personId, known.id),
			eq(invitation.purpose, 'renew'),
			isNull(invitation.usedAt)
		);
		await tx.update(invitation).set({ usedAt: now }).where(unused);
		await tx.insert(invitation).values({
			secretHash: secretHash(secret),
			personId: known.id,
			purpose: 'renew',
			expiresAt: new Date(now.getTime() + RENEW_MINUTES * 60_000)
		});
		const link = `${services.config.origin}/renew/${secret}`;
		await mail(
			{ name: known.name, address: input.email },
			'A new password for Cupboard',
			`Dear ${known.name},\n\nsomebody, most likely you, asked for a new password. Set it here within an hour; the link works once:\n${link}\n\nIf it was not you, forget this mail: your password stays as it is.\n`,
			[link]
		);
		return answer;
	}
});

export const renewPassword = defineAct({
	name: 'renewPassword',
	summary: 'Set a new password by the link that was asked for; all sessions end',
	method: 'POST',
	path: '/renewals/{secret}',
	input: z.strictObject({ secret: z.string().max(100), password }),
	at: { kind: 'open' },
	events: [],
	async run({ tx, now, newId }, input) {
		const used = await useLink(tx, input.secret, 'renew', now);
		if (!used) throw new Problem('not-found', 'This link was used already or has ended. Ask for a new one.');
		const [known] = await tx.select().from(person).where(eq(person.id, used.personId));
		await checkPassword(input.password, known!);
		await setPassword(tx, used.personId, input.password, { id: newId(), now });
		await endSessions(tx, used.personId, now);
		return { email: known!.email };
	}
});
