import { z } from 'zod';
import { CHECKS, REMEDIES, type Accepted, type Check } from '../../core/releases/checks';
import { PURPOSES } from '../../core/revisions/revisions';
import { moment } from '../fields';
import { type Build, type BuildItem } from '../../core/releases/build';
import { ITEM_ORDERS, type Arrangement, type Manifest, type ManifestItem } from '../../core/releases';

/** One document as the manifest of a release lists it. Sizes in bytes, hashes SHA-256 in hex. */
const manifestItem = z.strictObject({
	number: z.string(),
	title: z.string(),
	revision: z.string(),
	file: z.string(),
	size: z.number(),
	sha256: z.string(),
	/** What it stands under in the list, where that is in groups. */
	group: z.string().optional(),
	/** Set where the file was made from another that stays, by a stamp or marks. */
	madeFrom: z
		.strictObject({ file: z.string(), size: z.number(), sha256: z.string(), how: z.string() })
		.optional(),
	/** What a check asked to look at, and why it goes out all the same. */
	accepted: z
		.array(
			z.strictObject({ check: z.enum(CHECKS), sentence: z.string(), reason: z.string(), by: z.string() })
		)
		.optional()
}) satisfies z.ZodType<ManifestItem>;

/** What documents may be used for: a short code, and what it stands for. */
export const suitability = z.strictObject({
	code: z.string().trim().max(12),
	words: z.string().trim().max(80)
});

export const manifest = z.strictObject({
	format: z.literal('cupboard-manifest/1'),
	project: z.string(),
	release: z.string(),
	title: z.string(),
	purpose: z.string(),
	suitability: suitability.optional(),
	/** What whoever built it says to those who get it. */
	words: z.string().optional(),
	issuedAt: moment,
	issuedBy: z.string(),
	approvedBy: z.string(),
	recipient: z.string(),
	/** The trail's last entry before the issue and its hash; whoever holds the note can prove that it still stands. */
	trail: z.strictObject({ entry: z.number(), hash: z.string() }).optional(),
	documents: z.array(manifestItem)
}) satisfies z.ZodType<Manifest>;

/** How the documents of a release are listed: in which order, and in groups by which part of their numbers. */
export const arrangement = z.strictObject({
	order: z.enum(ITEM_ORDERS),
	group: z.string().max(40).nullable()
}) satisfies z.ZodType<Arrangement>;

/** Why something that a check asked to look at goes out all the same. Times are ISO 8601. */
const accepted = z.strictObject({
	reason: z.string(),
	by: z.string(),
	at: moment
}) satisfies z.ZodType<Accepted>;

/** The answer of one check on one document, with the step that mends it where there is one. */
export const check = z.strictObject({
	name: z.enum(CHECKS),
	result: z.enum(['look', 'fine', 'stops']),
	sentence: z.string(),
	remedy: z.enum(REMEDIES).nullable(),
	/** Set where somebody looked, and said why it goes out. */
	accepted: accepted.optional()
}) satisfies z.ZodType<Check>;

const buildItem = z.strictObject({
	number: z.string(),
	title: z.string(),
	/** The version that was chosen, and the label it gets at issue. */
	label: z.string(),
	to: z.string(),
	/** SHA-256 of its bytes. */
	hash: z.string(),
	/** SHA-256 of the marks that are burned in, where some are. */
	marks: z.string().optional(),
	accepted: z.array(z.strictObject({ check: z.enum(CHECKS), sentence: z.string(), reason: z.string() }))
}) satisfies z.ZodType<BuildItem>;

/** What somebody approves: everything of a release that goes out or decides how. */
export const build = z.strictObject({
	title: z.string(),
	purpose: z.enum(PURPOSES),
	/** Who gets what of it and how, a sentence for each. */
	recipients: z.array(z.string()),
	/** What is said to those who get it. */
	words: z.string(),
	/** How its documents leave, in words, where they leave changed. */
	leaving: z.string().optional(),
	/** How its documents are listed, in words, where that is not as they were added. */
	arranged: z.string().optional(),
	/** Who decides on it, a sentence for each step. */
	route: z.array(z.string()),
	/** YYYY-MM-DD, or null. */
	replyBy: z.string().nullable(),
	/** In their order. */
	items: z.array(buildItem)
}) satisfies z.ZodType<Build>;

/** A file of a package, by its path in it: what was made for it (base64), or stored content by its hash. */
export const packedFile = z.strictObject({
	path: z.string(),
	sha256: z.string(),
	size: z.number(),
	made: z.string().nullable()
});
