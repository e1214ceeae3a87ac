import { and, eq, gt, isNull } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { daysLater } from '../../core/time/spans';
import type { Tx } from '../platform/db';
import {
	apiToken,
	account,
	invitation,
	member,
	person,
	place,
	project,
	session
} from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import { checkPassword, hashPassword, verifyPassword } from '../platform/auth/passwords';
import { checkTries, countTry } from '../platform/auth/tries';
import { does } from '../platform/runner/act';

export const changeName = does(contract.changeName, {
	async run({ tx, person: by, now, tell }, input) {
		if (input.name === by.name) return { name: by.name };
		await tx.update(person).set({ name: input.name, updatedAt: now }).where(eq(person.id, by.id));
		// The name stands in every project that they are in.
		const there = await tx
			.select({ project: member.projectId })
			.from(member)
			.where(and(eq(member.personId, by.id), isNull(member.leftAt)))
			.orderBy(member.projectId);
		for (const { project } of there)
			tell(
				{ kind: 'person.renamed', details: { person: by.id, name: input.name, before: by.name } },
				project
			);
		return { name: input.name };
	}
});

export const changePassword = does(contract.changePassword, {
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

export const makeToken = does(contract.makeToken, {
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

export const withdrawToken = does(contract.withdrawToken, {
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

export const acceptInvitation = does(contract.acceptInvitation, {
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

export const askRenewal = does(contract.askRenewal, {
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
			{
				says: ['Somebody, most likely you, asked for a new password.'],
				link: { word: 'Set a new password', href: link },
				after: [
					'The link works once, within an hour. If it was not you, forget this mail: your password stays as it is.'
				]
			},
			[link]
		);
		return answer;
	}
});

export const renewPassword = does(contract.renewPassword, {
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
