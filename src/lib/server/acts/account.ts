import { and, eq, gt, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { Problem } from '../../core/problem';
import { apiToken, account, invitation, person, session } from '../db/schema';
import { newSecret, secretHash } from '../ids';
import { hashPassword, verifyPassword } from '../passwords';
import { defineAct } from './act';
import { id, name } from './fields';

export const password = z
	.string()
	.min(10, 'A password has at least 10 characters.')
	.max(200, 'A password has at most 200 characters.');

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
	async run({ tx, person: by, now }, input) {
		const own = and(eq(account.userId, by.id), eq(account.providerId, 'credential'));
		const [row] = await tx.select().from(account).where(own);
		if (!row?.password || !(await verifyPassword({ hash: row.password, password: input.current }))) {
			throw new Problem('invalid', 'The current password is not right.', { field: 'current' });
		}
		await tx
			.update(account)
			.set({ password: await hashPassword(input.password), updatedAt: now })
			.where(own);
		await tx.delete(session).where(eq(session.userId, by.id));
		return {};
	}
});

export const makeToken = defineAct({
	name: 'makeToken',
	summary: 'Make a personal API token; its secret is shown this once',
	method: 'POST',
	path: '/me/tokens',
	input: z.strictObject({ name }),
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
	summary: 'Set the first password by the link from the invitation',
	method: 'POST',
	path: '/invitations/{secret}',
	input: z.strictObject({ secret: z.string().max(100), password }),
	at: { kind: 'open' },
	events: [],
	async run({ tx, now, newId }, input) {
		const [used] = await tx
			.update(invitation)
			.set({ usedAt: now })
			.where(
				and(
					eq(invitation.secretHash, secretHash(input.secret)),
					isNull(invitation.usedAt),
					gt(invitation.expiresAt, now)
				)
			)
			.returning();
		if (!used)
			throw new Problem(
				'not-found',
				'This invitation was used already or has ended. Ask the document controller to send a new one.'
			);
		await tx.insert(account).values({
			id: newId(),
			accountId: used.personId,
			providerId: 'credential',
			userId: used.personId,
			password: await hashPassword(input.password),
			createdAt: now
		});
		const [row] = await tx
			.update(person)
			.set({ emailVerified: true })
			.where(eq(person.id, used.personId))
			.returning();
		return { email: row!.email };
	}
});
