import { z } from 'zod';
import { LEVELS } from '../../core/access/levels';
import { STATES } from '../../core/documents/state';
import { DOCUMENT_KINDS } from '../../core/live/live';
import { moment } from '../fields';
import {
	type DocumentRow,
	type EventRow,
	type LockRow,
	type SideRow,
	type VersionRow
} from '../../core/documents/rows';
import { type SheetArea, type SheetWord } from '../../core/documents/title-block';

/** Plain shapes that views answer with and lists show. Times are ISO 8601 in UTC, sizes in bytes. */
const lockRow = z.strictObject({
	holder: z.string(),
	mine: z.boolean(),
	since: moment,
	purpose: z.string(),
	expectedEnd: z.string().nullable(),
	stale: z.boolean()
}) satisfies z.ZodType<LockRow>;

export const documentRow = z.strictObject({
	id: z.string(),
	/** The folder it lies in, when one may look at that too. */
	folder: z.string().nullable(),
	scope: z.string(),
	/** The level that the reader holds; what caps it (a freeze, a lock, the archive) is in the `level` of its view. */
	held: z.enum(LEVELS),
	frozen: z.strictObject({ by: z.string(), reason: z.string() }).nullable(),
	closed: z.boolean(),
	number: z.string(),
	title: z.string(),
	kind: z.enum(DOCUMENT_KINDS),
	tags: z.array(z.string()),
	state: z.enum(STATES),
	label: z.string(),
	issued: z.boolean(),
	note: z.string(),
	versions: z.number(),
	changedAt: moment,
	changedBy: z.string().nullable(),
	fileName: z.string(),
	hash: z.string(),
	mediaType: z.string(),
	size: z.number(),
	preview: z.string().nullable(),
	lock: lockRow.nullable(),
	isNew: z.boolean(),
	/** Number of the release in review that holds it, or null. */
	inRelease: z.number().nullable(),
	/** Number of the issued release that its newest version went out with, or null. */
	withClient: z.number().nullable()
}) satisfies z.ZodType<DocumentRow>;

/** Content handed in without the lock, kept beside the line. */
export const sideRow = z.strictObject({
	number: z.number(),
	at: moment,
	by: z.string(),
	byId: z.string(),
	note: z.string(),
	fileName: z.string(),
	/** The version it was made from, when that is known. */
	base: z.string().nullable(),
	hash: z.string(),
	size: z.number(),
	mediaType: z.string(),
	state: z.enum(['open', 'merged', 'discarded']),
	decidedBy: z.string().nullable(),
	reason: z.string().nullable()
}) satisfies z.ZodType<SideRow>;

export const versionRow = z.strictObject({
	label: z.string(),
	issued: z.boolean(),
	at: moment,
	by: z.string().nullable(),
	note: z.string(),
	fileName: z.string(),
	size: z.number(),
	hash: z.string(),
	mediaType: z.string(),
	lockKept: z.boolean(),
	/** Release it was issued in, and the client's verdict there. */
	release: z.number().nullable(),
	verdict: z.string().nullable()
}) satisfies z.ZodType<VersionRow>;

/** A word on a sheet and its middle, in shares of the sheet's width and height from the upper left corner. */
export const sheetWord = z.strictObject({
	text: z.string(),
	x: z.number(),
	y: z.number()
}) satisfies z.ZodType<SheetWord>;

/** A part of a sheet, in shares of its width and height. */
export const sheetArea = z.strictObject({
	left: z.number(),
	top: z.number(),
	right: z.number(),
	bottom: z.number()
}) satisfies z.ZodType<SheetArea>;

export const eventRow = z.strictObject({
	seq: z.number(),
	at: moment,
	actor: z.string(),
	kind: z.string(),
	place: z.strictObject({ id: z.string(), kind: z.string(), removed: z.boolean() }).nullable(),
	document: z.string().nullable(),
	release: z.number().nullable(),
	details: z.record(z.string(), z.unknown())
}) satisfies z.ZodType<EventRow>;
