import { and, eq, gt, isNull } from 'drizzle-orm';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { twoFactor as twoStep } from 'better-auth/plugins/two-factor';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Problem } from '../core/problem';
import type { Actor } from './actor';
import type { Config } from './config';
import type { Database } from './db';
import { account, apiToken, invitation, person, session, twoFactor, verification } from './db/schema';
import { newId, secretHash } from './ids';
import { hashPassword, verifyPassword } from './passwords';

const WRONG_PAIR = 'The mail address and the password do not fit together.';

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
		plugins: [twoStep({ issuer: 'Cupboard', totpOptions: { digits: 6, period: 30 } })],
		session: { expiresIn: 14 * 86_400, updateAge: 86_400 },
		advanced: {
			cookiePrefix: 'cupboard',
			useSecureCookies: config.origin.startsWith('https:'),
			database: { generateId: () => newId() },
			defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' }
		}
	});
	// Two ways to guess: many passwords for one address, or one password for many addresses.
	const perAddress = new RateLimiterMemory({ points: 8, duration: 300, blockDuration: 300 });
	const perSource = new RateLimiterMemory({ points: 60, duration: 300, blockDuration: 300 });

	return {
		/**
		 * Signs in, or goes half way for people with two-step sign-in. Gives the Set-Cookie headers and whether a code
		 * is still asked for; raises `invalid` for a wrong pair and `too-many` past the limit.
		 */
		async signIn(
			email: string,
			password: string,
			source: string,
			headers: Headers
		): Promise<{ cookies: string[]; asksCode: boolean }> {
			const key = email.trim().toLowerCase().slice(0, 200);
			try {
				await perSource.consume(source);
				await perAddress.consume(key);
			} catch {
				throw new Problem('too-many', 'Too many tries. Wait five minutes, then try again.');
			}
			const [known] = await database.db
				.select({ closedAt: person.closedAt })
				.from(person)
				.where(eq(person.email, key));
			if (known?.closedAt) throw new Problem('invalid', WRONG_PAIR);
			const response = await auth.api.signInEmail({
				body: { email: key, password },
				headers,
				asResponse: true
			});
			if (!response.ok) throw new Problem('invalid', WRONG_PAIR);
			await perAddress.delete(key);
			const answer = (await response.json()) as { twoFactorRedirect?: boolean };
			return { cookies: response.headers.getSetCookie(), asksCode: answer.twoFactorRedirect === true };
		},

		/** The second step of signing in: a time code (RFC 6238), or one of the recovery codes, each good for once. */
		async signInCode(code: string, source: string, headers: Headers): Promise<string[]> {
			try {
				await perSource.consume(source);
			} catch {
				throw new Problem('too-many', 'Too many tries. Wait five minutes, then try again.');
			}
			const plain = code.replace(/\s/g, '');
			const response = /^\d{6}$/.test(plain)
				? await auth.api.verifyTOTP({ body: { code: plain }, headers, asResponse: true })
				: await auth.api.verifyBackupCode({ body: { code: plain }, headers, asResponse: true });
			if (!response.ok)
				throw new Problem('invalid', 'The code is wrong, or has been used. Codes change every half minute.');
			return response.headers.getSetCookie();
		},

		/** Begins to set up two-step sign-in: what an authenticator needs, and the recovery codes, shown once. */
		async beginTwoStep(password: string, headers: Headers): Promise<{ uri: string; codes: string[] }> {
			const answer = await auth.api
				.enableTwoFactor({ body: { password, method: 'totp' }, headers })
				.catch(() => null);
			if (!answer || !('totpURI' in answer)) throw new Problem('invalid', 'The password is not right.');
			return { uri: answer.totpURI, codes: answer.backupCodes };
		},

		/** Ends two-step sign-in. */
		async endTwoStep(password: string, headers: Headers): Promise<string[]> {
			const response = await auth.api.disableTwoFactor({ body: { password }, headers, asResponse: true });
			if (!response.ok) throw new Problem('invalid', 'The password is not right.');
			return response.headers.getSetCookie();
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
			const found = await auth.api.getSession({ headers }).catch(() => null);
			return found
				? { person: { id: found.user.id, name: found.user.name, email: found.user.email }, via: 'session' }
				: null;
		},

		async byToken(secret: string): Promise<Actor> {
			const now = new Date();
			const [row] = await database.db
				.select({
					id: person.id,
					name: person.name,
					email: person.email,
					token: apiToken.id,
					used: apiToken.lastUsedAt
				})
				.from(apiToken)
				.innerJoin(person, eq(person.id, apiToken.personId))
				.where(and(eq(apiToken.secretHash, secretHash(secret)), isNull(apiToken.withdrawnAt)));
			if (!row) throw new Problem('needs-sign-in', 'This token is unknown or was withdrawn.');
			if (!row.used || now.getTime() - row.used.getTime() > 60_000) {
				await database.db.update(apiToken).set({ lastUsedAt: now }).where(eq(apiToken.id, row.token));
			}
			return { person: { id: row.id, name: row.name, email: row.email }, via: 'token' };
		},

		/** Who an invitation is for, while it can still be used; null otherwise. */
		async invited(secret: string): Promise<{ name: string; email: string } | null> {
			const [row] = await database.db
				.select({ name: person.name, email: person.email })
				.from(invitation)
				.innerJoin(person, eq(person.id, invitation.personId))
				.where(
					and(
						eq(invitation.secretHash, secretHash(secret)),
						isNull(invitation.usedAt),
						gt(invitation.expiresAt, new Date())
					)
				);
			return row ?? null;
		}
	};
}
