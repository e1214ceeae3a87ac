import { index, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { created } from './columns';
import { person } from './people';
import { place } from './places';

/** What a person keeps at hand: bookmarks of their own. */
export const atHand = pgTable(
	'at_hand',
	{
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		placeId: text('place_id')
			.notNull()
			.references(() => place.id, { onDelete: 'cascade' }),
		/** As it was called then: all that is told of it once its person may no longer look at it. */
		known: text().notNull(),
		createdAt: created()
	},
	(t) => [primaryKey({ columns: [t.personId, t.placeId] }), index('at_hand_place').on(t.placeId)]
);
