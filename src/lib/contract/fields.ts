import { z } from 'zod';
import { normaliseName } from '../core/files/names';
import { MAX_TAG, MOST_TAGS, TAG } from '../core/files/settle';
import { ID_LENGTH } from '../core/acts/ids';

/** Fields that many acts share, with the sentence each gives when it does not fit. */
export const id = z.string().regex(new RegExp(`^[a-z0-9]{${ID_LENGTH}}$`), 'This is not an id of Cupboard.');

/** A name of a place or a title, brought into the form in which names are kept. */
export const name = z.string().transform((raw, context) => {
	const result = normaliseName(raw);
	if ('name' in result) return result.name;
	context.addIssue({ code: 'custom', message: result.sentence });
	return z.NEVER;
});

/** A note, reason or remark: free text over several lines, never with control characters. */
export const note = z
	.string()
	.max(2_000, 'At most 2,000 characters.')
	.transform((raw) =>
		raw
			.normalize('NFC')
			.replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, '')
			.trim()
	);

export const reason = note.refine((text) => text.length > 0, 'Say why.');
export const email = z
	.email('This is not a mail address.')
	.max(200)
	.transform((raw) => raw.trim().toLowerCase());
export const projectKey = z.string().min(1).max(20);
export const number = z
	.string()
	.trim()
	.min(1, 'A number is needed.')
	.max(60, 'At most 60 characters.')
	.regex(/^[\p{L}\p{N}._-]+$/u, 'A number holds letters, digits, “-”, “_” and “.” only.');
/** A word that documents are found by. */
export const tag = z
	.string()
	.trim()
	.toLowerCase()
	.min(1, 'A tag has at least one character.')
	.max(MAX_TAG, `A tag has at most ${MAX_TAG} characters.`)
	.regex(TAG, 'A tag holds letters, digits, blanks, “-”, “_” and “.” only.');
export const tags = z.array(tag).max(MOST_TAGS, `At most ${MOST_TAGS} tags.`);
/** A list in a query: the parameter stands there once for each member, so that one member alone comes as a text. */
export const several = <S extends z.ZodType>(member: S, most: number) =>
	z
		.union([z.array(member), member])
		.transform((given) => (Array.isArray(given) ? given : [given]) as z.output<S>[])
		.refine((list) => list.length <= most, `At most ${most} at a time.`)
		.default([]);

/** Yes or no in a query, where everything is text. */
export const flag = z.union([z.boolean(), z.stringbool()]).default(false);

export const day = z.iso.date('Give the day as YYYY-MM-DD.');
export const moment = z.iso.datetime({ offset: true, message: 'Give the time as ISO 8601.' });

/** Whether it is only a part of a file that is asked for. */
export const ranged = z.boolean().default(false);
/** The secret part of a link. */
export const secret = z.string().max(100);

/** Most that an act does at once. */
export const MOST_AT_ONCE = 1_000;
/** What an act on many at once is about. */
export const many = {
	documents: z.array(id).max(MOST_AT_ONCE, 'At most 1,000 at a time.').default([]),
	/** Folders, each with everything in it. */
	folders: z.array(id).max(MOST_AT_ONCE, 'At most 1,000 at a time.').default([])
};
