import { boolean, index, integer, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { created, oneOf, time } from './columns';

const INVITATION_PURPOSES = ['invite', 'renew'] as const;
const TOKEN_SCOPES = ['read', 'all'] as const;

/* People and sign-in. The shapes of person, session, account and verification are what better-auth expects. */

export const person = pgTable('person', {
	id: text().primaryKey(),
	name: text().notNull(),
	email: text().notNull().unique(),
	emailVerified: boolean('email_verified').notNull().default(false),
	image: text(),
	twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
	/** When the person left for good; they cannot sign in any more. */
	closedAt: time('closed_at'),
	createdAt: created(),
	updatedAt: time('updated_at').notNull().defaultNow()
});

export const session = pgTable(
	'session',
	{
		id: text().primaryKey(),
		token: text().notNull().unique(),
		userId: text('person_id')
			.notNull()
			.references(() => person.id),
		expiresAt: time('expires_at').notNull(),
		ipAddress: text('ip_address'),
		userAgent: text('user_agent'),
		createdAt: created(),
		updatedAt: time('updated_at').notNull().defaultNow()
	},
	(t) => [index('session_by_person').on(t.userId)]
);

export const account = pgTable(
	'account',
	{
		id: text().primaryKey(),
		accountId: text('account_id').notNull(),
		providerId: text('provider_id').notNull(),
		userId: text('person_id')
			.notNull()
			.references(() => person.id),
		accessToken: text('access_token'),
		refreshToken: text('refresh_token'),
		idToken: text('id_token'),
		accessTokenExpiresAt: time('access_token_expires_at'),
		refreshTokenExpiresAt: time('refresh_token_expires_at'),
		scope: text(),
		password: text(),
		createdAt: created(),
		updatedAt: time('updated_at').notNull().defaultNow()
	},
	(t) => [uniqueIndex('account_one').on(t.providerId, t.accountId)]
);

export const verification = pgTable('verification', {
	id: text().primaryKey(),
	identifier: text().notNull(),
	value: text().notNull(),
	expiresAt: time('expires_at').notNull(),
	createdAt: created(),
	updatedAt: time('updated_at').notNull().defaultNow()
});

/** The second step of sign-in (time codes, RFC 6238), as better-auth keeps it; secrets are encrypted. */
export const twoFactor = pgTable(
	'two_factor',
	{
		id: text().primaryKey(),
		secret: text().notNull(),
		backupCodes: text('backup_codes').notNull(),
		userId: text('person_id')
			.notNull()
			.references(() => person.id),
		verified: boolean().notNull().default(true),
		failedVerificationCount: integer('failed_verification_count').notNull().default(0),
		lockedUntil: time('locked_until')
	},
	(t) => [index('two_factor_by_person').on(t.userId)]
);

/** A one-time link by which a person sets a password: the first one, or another for one that was forgotten. */
export const invitation = pgTable(
	'invitation',
	{
		/** Only the hash of its secret is kept. */
		secretHash: text('secret_hash').primaryKey(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		purpose: text({ enum: INVITATION_PURPOSES }).notNull().default('invite'),
		/** Where whoever accepts it lands: the place they were let into, else the project. */
		projectId: text('project_id'),
		placeId: text('place_id'),
		expiresAt: time('expires_at').notNull(),
		usedAt: time('used_at')
	},
	(t) => [oneOf(t.purpose, INVITATION_PURPOSES)]
);

/** Time codes that were used, so that each works once; by person and code, until the code has gone by itself. */
export const usedCode = pgTable(
	'used_code',
	{
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		codeHash: text('code_hash').notNull(),
		at: time('at').notNull()
	},
	(t) => [primaryKey({ columns: [t.personId, t.codeHash] })]
);

export const apiToken = pgTable(
	'api_token',
	{
		id: text().primaryKey(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		name: text().notNull(),
		secretHash: text('secret_hash').notNull().unique(),
		/** What it may be used for: reading only, or everything its person may. */
		scope: text({ enum: TOKEN_SCOPES }).notNull().default('all'),
		/** Whether it ends when its person changes the password. */
		endsWithPassword: boolean('ends_with_password').notNull().default(false),
		endsAt: time('ends_at'),
		createdAt: created(),
		lastUsedAt: time('last_used_at'),
		withdrawnAt: time('withdrawn_at')
	},
	(t) => [oneOf(t.scope, TOKEN_SCOPES), index('api_token_by_person').on(t.personId)]
);
