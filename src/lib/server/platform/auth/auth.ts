import { and, eq, gt, isNull, or, sql } from 'drizzle-orm';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { twoFactor as twoStep } from 'better-auth/plugins/two-factor';
import { Problem } from '../../../core/acts/problem';
import { DAY } from '../../../core/time/spans';
import type { Actor } from '../runner/actor';
import type { Config } from '../config';
import type { Database } from '../db';
import { account, apiToken, invitation, person, session, twoFactor, verification } from '../db/schema';
import { newId, secretHash } from '../ids';
import { hashPassword, verifyPassword } from './passwords';
import { TIME_CODE, useTimeCode, WRONG_CODE } from './time-code';
import { checkTries, countTry, forgetTries, triesOf } from './tries';

/** A session ends this long after it began, however much it is used, in milliseconds. */
const LONGEST_SESSION = 30 * DAY;
const WRONG_PAIR = 'The mail address and the password do not fit together.';

/** Makes whoever guesses wait, the longer the more often. */
function slowDown(tries: number): Promise<void> {
	return new Promise((done) => setTimeout(done, Math.min(2_000, 60 * 2 ** Math.min(tries, 6))));
}

export type Auth = ReturnType<typeof makeAuth>;

/** Sign-in with mail address and password, and the sessions that follow. Its own HTTP handler is not mounted. */
export function makeAuth(config: Config, database: Database) {
	const auth = betterAuth({
		appName: 'Cupboard',
		baseURL: config.origin,
		secret: config.secret,
		telemetry: { enabled: false },
		logger: { disabled: true },
		database: drizzleAdapter(database.db, {
			provider: 'pg',
			schema: { user: person, session, account, verification, twoFactor }
		}),
		emailAndPassword: {
			enabled: true,
			disableSignUp: true,
			password: { hash: hashPassword, verify: verifyPassword }
		},
		plugins: [twoStep({ issuer: 'Cupboard', totpOptions: TIME_CODE })],
		session: { expiresIn: 14 * 86_400, updateAge: 86_400 },
		advanced: {
			cookiePrefix: 'cupboard',
			useSecureCookies: config.origin.startsWith('https:'),
			database: { generateId: () => newId() },
			defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' }
		}
	});
	/** Whether a password is right, at the same cost whether there is such an account or not. */
	async function fits(userId: string | null, password: string): Promise<boolean> {
		const [own] = userId
			? await database.db
					.select({ hash: account.password })
					.from(account)
					.where(and(eq(account.userId, userId), eq(account.providerId, 'credential')))
			: [];
		if (own?.hash) return verifyPassword({ hash: own.hash, password });
		await hashPassword(password);
		return false;
	}

	/** Counts a wrong guess within a session, or a half-made one. Raises `too-many` past the limit. */
	async function guessed(key: string): Promise<void> {
		await countTry(database, 'guess', key);
	}

	/** What a code is good for once: raises `invalid` when it was used, and ends the session it opened again. */
	async function useOnce(userId: string, code: string, token: string | undefined): Promise<void> {
		if (await useTimeCode(database.db, userId, code, new Date())) return;
		if (token) await database.db.delete(session).where(eq(session.token, token));
		throw new Problem('invalid', WRONG_CODE);
	}

	return {
		/**
		 * Signs in, or goes half way for people with two-step sign-in. Gives the Set-Cookie headers and whether a code
		 * is still asked for; raises `invalid` for a wrong pair and `too-many` past the limit. Only wrong tries count, by
		 * account and network address together, so that nobody can shut another out; each makes the next one slower.
		 */
		async signIn(
			email: string,
			password: string,
			source: string,
			headers: Headers
		): Promise<{ cookies: string[]; asksCode: boolean }> {
			const key = email.trim().toLowerCase().slice(0, 200);
			const pair = `${key}|${source}`;
			await checkTries(database, 'sign-in', pair);
			await checkTries(database, 'sign-in-source', source);
			const [known] = await database.db
				.select({ id: person.id, closedAt: person.closedAt })
				.from(person)
				.where(eq(person.email, key));
			if (!(await fits(known?.id ?? null, password)) || known!.closedAt) {
				await countTry(database, 'sign-in-source', source);
				await countTry(database, 'sign-in', pair);
				await slowDown(await triesOf(database, 'sign-in', pair));
				throw new Problem('invalid', WRONG_PAIR);
			}
			const response = await auth.api.signInEmail({
				body: { email: key, password },
				headers,
				asResponse: true
			});
			if (!response.ok) throw new Problem('invalid', WRONG_PAIR);
			await forgetTries(database, 'sign-in', pair);
			const answer = (await response.json()) as { twoFactorRedirect?: boolean };
			return { cookies: response.headers.getSetCookie(), asksCode: answer.twoFactorRedirect === true };
		},

		/**
		 * The second step of signing in, and of setting it up: a time code (RFC 6238), or one of the recovery codes, each
		 * good for once.
		 */
		async signInCode(code: string, source: string, headers: Headers): Promise<string[]> {
			// A half-made sign-in is known by its cookie.
			const half = /cupboard\.two_factor=([^;]+)/.exec(headers.get('cookie') ?? '')?.[1] ?? source;
			const key = secretHash(half).slice(0, 32);
			await checkTries(database, 'guess', key);
			await checkTries(database, 'sign-in-source', source);
			const plain = code.replace(/\s/g, '');
			const timed = /^\d{6}$/.test(plain);
			const response = timed
				? await auth.api.verifyTOTP({ body: { code: plain }, headers, asResponse: true })
				: await auth.api.verifyBackupCode({ body: { code: plain }, headers, asResponse: true });
			if (!response.ok) {
				await countTry(database, 'sign-in-source', source);
				await guessed(key);
				throw new Problem('invalid', WRONG_CODE);
			}
			const answer = (await response.json()) as { token?: string; user: { id: string } };
			if (timed) await useOnce(answer.user.id, plain, answer.token);
			return response.headers.getSetCookie();
		},

		/** Begins to set up two-step sign-in: what an authenticator needs, and the recovery codes, shown once. */
		async beginTwoStep(password: string, headers: Headers): Promise<{ uri: string; codes: string[] }> {
			const self = await this.guessing(headers);
			const answer = await auth.api
				.enableTwoFactor({ body: { password, method: 'totp' }, headers })
				.catch(() => null);
			if (!answer || !('totpURI' in answer)) {
				await guessed(self);
				throw new Problem('invalid', 'The password is not right.');
			}
			return { uri: answer.totpURI, codes: answer.backupCodes };
		},

		/** Ends two-step sign-in. */
		async endTwoStep(password: string, headers: Headers): Promise<string[]> {
			const self = await this.guessing(headers);
			const response = await auth.api.disableTwoFactor({ body: { password }, headers, asResponse: true });
			if (!response.ok) {
				await guessed(self);
				throw new Problem('invalid', 'The password is not right.');
			}
			return response.headers.getSetCookie();
		},

		/** Who guesses within a session. Raises `too-many` when they guessed too often. */
		async guessing(headers: Headers): Promise<string> {
			const self = (await this.actor(headers))?.person.id;
			if (!self) throw new Problem('needs-sign-in', 'Sign in first.');
			await checkTries(database, 'guess', self);
			return self;
		},

		async signOut(headers: Headers): Promise<string[]> {
			const response = await auth.api.signOut({ headers, asResponse: true });
			return response.headers.getSetCookie();
		},

		/** Who a request comes from: a bearer token, or the session of the cookie. */
		async actor(headers: Headers): Promise<Actor> {
			const bearer = /^Bearer\s+(\S+)$/i.exec(headers.get('authorization') ?? '')?.[1];
			if (bearer) return this.byToken(bearer);
			if (!headers.get('cookie')?.includes('cupboard.session_token')) return null;
			const found = await auth.api.getSession({ headers }).catch(async () => {
				// No session is one thing, and a database that is away another: the second raises here.
				await database.db.execute(sql`select 1`);
				return null;
			});
			if (!found) return null;
			// A session that is used goes on, but not for ever.
			if (Date.now() - new Date(found.session.createdAt).getTime() > LONGEST_SESSION) {
				await database.db.delete(session).where(eq(session.id, found.session.id));
				return null;
			}
			const { id, name, email } = found.user;
			return { person: { id, name, email }, via: 'session' };
		},

		async byToken(secret: string): Promise<Actor> {
			const now = new Date();
			const [row] = await database.db
				.select({
					id: person.id,
					name: person.name,
					email: person.email,
					token: apiToken.id,
					scope: apiToken.scope,
					used: apiToken.lastUsedAt
				})
				.from(apiToken)
				.innerJoin(person, eq(person.id, apiToken.personId))
				.where(
					and(
						eq(apiToken.secretHash, secretHash(secret)),
						isNull(apiToken.withdrawnAt),
						or(isNull(apiToken.endsAt), gt(apiToken.endsAt, now)),
						isNull(person.closedAt)
					)
				);
			if (!row) throw new Problem('needs-sign-in', 'This token is unknown, has ended or was withdrawn.');
			if (!row.used || now.getTime() - row.used.getTime() > 60_000) {
				await database.db.update(apiToken).set({ lastUsedAt: now }).where(eq(apiToken.id, row.token));
			}
			return { person: { id: row.id, name: row.name, email: row.email }, via: 'token', scope: row.scope };
		},

		/** Who a link for setting a password is for, while it can still be used; null otherwise. */
		async invited(
			secret: string,
			purpose: 'invite' | 'renew' = 'invite'
		): Promise<{ name: string; email: string } | null> {
			const [row] = await database.db
				.select({ name: person.name, email: person.email })
				.from(invitation)
				.innerJoin(person, eq(person.id, invitation.personId))
				.where(
					and(
						eq(invitation.secretHash, secretHash(secret)),
						eq(invitation.purpose, purpose),
						isNull(invitation.usedAt),
						gt(invitation.expiresAt, new Date())
					)
				);
			return row ?? null;
		}
	};
}
