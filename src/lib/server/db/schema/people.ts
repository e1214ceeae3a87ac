import { boolean, index, pgTable, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { created, time } from './columns';

/* People and sign-in. The shapes of person, session, account and verification are what better-auth expects. */

export const person = pgTable('person', {
	id: text().primaryKey(),
	name: text().notNull(),
	email: text().notNull().unique(),
	emailVerified: boolean('email_verified').notNull().default(false),
	image: text(),
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

/** A one-time link by which a person sets their first password. Only the hash of its secret is kept. */
export const invitation = pgTable('invitation', {
	secretHash: text('secret_hash').primaryKey(),
	personId: text('person_id')
		.notNull()
		.references(() => person.id),
	expiresAt: time('expires_at').notNull(),
	usedAt: time('used_at')
});

export const apiToken = pgTable(
	'api_token',
	{
		id: text().primaryKey(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		name: text().notNull(),
		secretHash: text('secret_hash').notNull().unique(),
		createdAt: created(),
		lastUsedAt: time('last_used_at'),
		withdrawnAt: time('withdrawn_at')
	},
	(t) => [index('api_token_by_person').on(t.personId)]
);
