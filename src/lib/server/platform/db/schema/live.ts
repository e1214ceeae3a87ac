import { bigserial, customType, index, integer, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { created, time } from './columns';
import { content, document, version } from './documents';
import { person } from './people';

const bytes = customType<{ data: Uint8Array; driverData: Buffer }>({
	dataType: () => 'bytea',
	toDriver: (value) => Buffer.from(value),
	fromDriver: (value) => new Uint8Array(value)
});

/** What several edit at once, as one Yjs document: its state up to the last compaction. */
export const liveRoom = pgTable('live_room', {
	/** Kind of room, id of its document and of this time of editing together: `text/abcdefghjk/23456789ab`. */
	name: text().primaryKey(),
	documentId: text('document_id')
		.notNull()
		.references(() => document.id),
	state: bytes().notNull(),
	changedAt: time('changed_at').notNull()
});

/** Changes since the last compaction, in the order they came, each with who sent it. */
export const liveUpdate = pgTable(
	'live_update',
	{
		seq: bigserial({ mode: 'number' }).primaryKey(),
		room: text()
			.notNull()
			.references(() => liveRoom.name),
		personId: text('person_id').references(() => person.id),
		bytes: bytes().notNull(),
		at: created()
	},
	(t) => [index('live_update_room').on(t.room, t.seq)]
);

/** Which person wrote under a client number of a shared document. */
export const liveWriter = pgTable(
	'live_writer',
	{
		room: text().notNull(),
		client: text().notNull(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id)
	},
	(t) => [primaryKey({ columns: [t.room, t.client] })]
);

/** What somebody took away: letters of a client from a clock on. A removal itself does not say who made it. */
export const liveRemoval = pgTable(
	'live_removal',
	{
		seq: bigserial({ mode: 'number' }).primaryKey(),
		room: text().notNull(),
		client: text().notNull(),
		clock: integer().notNull(),
		length: integer().notNull(),
		personId: text('person_id')
			.notNull()
			.references(() => person.id)
	},
	(t) => [index('live_removal_room').on(t.room)]
);

/** The live state that a version was cut from: a Yjs snapshot to look back by, and the whole state. */
export const liveCut = pgTable('live_cut', {
	versionId: text('version_id')
		.primaryKey()
		.references(() => version.id),
	room: text().notNull(),
	snapshot: bytes().notNull(),
	state: bytes().notNull(),
	/** SHA-256 of the state, in hex. */
	stateHash: text('state_hash').notNull()
});

/** Pictures that stand, or once stood, in a live text. */
export const livePicture = pgTable(
	'live_picture',
	{
		documentId: text('document_id')
			.notNull()
			.references(() => document.id),
		hash: text()
			.notNull()
			.references(() => content.hash)
	},
	(t) => [primaryKey({ columns: [t.documentId, t.hash] }), index('live_picture_hash').on(t.hash)]
);
