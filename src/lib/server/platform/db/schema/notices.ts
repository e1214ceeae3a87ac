import { index, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { NOTICE_CHOICES, NOTICE_KINDS } from '../../../../core/notices/notices';
import { created, oneOf, time } from './columns';
import { person } from './people';
import { project } from './project';

/** Something a person is told. What it says of a place is left out when they may no longer look at it. */
export const notice = pgTable(
	'notice',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		kind: text({ enum: NOTICE_KINDS }).notNull(),
		placeId: text('place_id'),
		releaseId: text('release_id'),
		sentence: text().notNull(),
		/** Path in the application to go to. */
		way: text().notNull(),
		readAt: time('read_at'),
		/** Null while its mail is still to go out with the day's digest. */
		mailedAt: time('mailed_at'),
		createdAt: created()
	},
	(t) => [
		oneOf(t.kind, NOTICE_KINDS),
		index('notice_by_person').on(t.personId, t.createdAt),
		index('notice_unmailed').on(t.mailedAt)
	]
);

/** How a person wants to be told of a kind of thing by mail. */
export const noticeChoice = pgTable(
	'notice_choice',
	{
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		kind: text({ enum: NOTICE_KINDS }).notNull(),
		choice: text({ enum: NOTICE_CHOICES }).notNull()
	},
	(t) => [
		oneOf(t.choice, NOTICE_CHOICES),
		oneOf(t.kind, NOTICE_KINDS),
		primaryKey({ columns: [t.personId, t.kind] })
	]
);
