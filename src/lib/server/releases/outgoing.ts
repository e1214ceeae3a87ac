import { splitExtension } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { label, nextIssue, parse } from '../../core/revisions/revisions';
import { outgoingName, stampText, suitabilityOf, type Changes } from '../../core/releases';
import { dayOf } from '../../core/time/days';
import type { Querier } from '../platform/db';
import type { project, release } from '../platform/db/schema';
import { atOnce } from '../platform/at-once';
import { keepMade } from '../content/content';
import type { Services } from '../platform/services';
import type { GivenMarks } from '../marks/marked';
import { releaseItems, type CheckedItem } from './checks';

interface Stored {
	hash: string;
	size: number;
}

/** A document as it goes out. */
export interface Outgoing extends Stored {
	documentId: string;
	number: string;
	title: string;
	/** What it stands under in the list; empty where that is one. */
	heading: string;
	fromVersionId: string;
	fromLabel: string;
	to: string;
	fileName: string;
	mediaType: string;
	outgoing: string;
	/** Whether it gets a label that it had not before. */
	fresh: boolean;
	/** What is put on it on its way out, with the marks themselves; null where it leaves as it is. */
	changes: (Changes & { given: GivenMarks | null }) | null;
	/** What is sent in its stead, once that is made. */
	copy: (Stored & { mediaType: string }) | null;
}

/** Under which label, which name, and with what on them the documents of a release would go out now. */
export async function goingOut(
	db: Querier,
	about: typeof release.$inferSelect,
	here: typeof project.$inferSelect,
	checked: CheckedItem[]
): Promise<Outgoing[]> {
	const scheme = here.settings.revisions;
	const found = new Map(checked.map((item) => [item.documentId, item]));
	return (await releaseItems(db, about.id)).map((row) => {
		const current = parse(scheme, row.chosenLabel);
		if (!current)
			throw new Problem('conflict', `${row.number}: ${row.chosenLabel} does not fit the revision scheme.`);
		const to = label(scheme, nextIssue(scheme, current, about.purpose));
		const { changes = null, marks = null } = found.get(row.documentId) ?? {};
		return {
			documentId: row.documentId,
			number: row.number,
			title: row.title,
			heading: row.heading,
			fromVersionId: row.versionId,
			fromLabel: row.chosenLabel,
			to,
			hash: row.hash,
			size: row.size,
			fileName: row.fileName,
			mediaType: row.mediaType,
			outgoing: outgoingName(
				row.number,
				to,
				row.title,
				changes?.marks ? 'pdf' : splitExtension(row.fileName)[1]
			),
			fresh: to !== row.chosenLabel,
			changes: changes && { ...changes, given: changes.marks ? marks : null },
			copy: null
		};
	});
}

/** What is put on a document that leaves changed. */
export interface PutOn {
	/** What its stamp says, in lines; null for none. */
	stamp: string | null;
	marks: GivenMarks | null;
}
type Changed = Outgoing & { changes: NonNullable<Outgoing['changes']> };

/** What is put on a document of a release if it goes out now. */
export function putOn(
	about: typeof release.$inferSelect,
	here: typeof project.$inferSelect,
	now: Date,
	{ number, to, changes }: Changed
): PutOn {
	const text = stampText({
		words: here.settings.copyStamp ?? '',
		number,
		revision: to,
		suitability: suitabilityOf(here.settings, about.purpose),
		release: about.number,
		day: dayOf(now, here.timeZone)
	});
	return { stamp: changes.stamp ? text : null, marks: changes.given };
}

/**
 * The file that is sent in the stead of another; with marks it is a PDF.
 * @throws Problem `invalid` where the file is locked or damaged
 */
export async function changedCopy(
	services: Services,
	file: { hash: string; size: number; mediaType: string },
	{ stamp, marks }: PutOn
): Promise<{ bytes: Uint8Array; mediaType: string }> {
	const bytes = await services.inspector.copy(file, {
		stamp: stamp === null ? null : { text: stamp, across: false },
		marks
	});
	return { bytes, mediaType: marks ? 'application/pdf' : file.mediaType };
}

/** So many copies are made at a time. */
const AT_ONCE = 4;

/**
 * Makes and stores what is sent in the stead of those documents that something is put on; the project stays as it is.
 * @throws Problem `conflict` with the number of one whose file is locked or damaged
 */
export async function makeCopies(
	services: Services,
	about: typeof release.$inferSelect,
	here: typeof project.$inferSelect,
	now: Date,
	items: Outgoing[]
): Promise<void> {
	const left = items.filter((item): item is Changed => item.changes !== null);
	await atOnce(left, AT_ONCE, async (item) => {
		const { bytes, mediaType } = await changedCopy(services, item, putOn(about, here, now, item)).catch(
			refusing(item.number)
		);
		item.copy = { ...(await keepMade(services, bytes, mediaType, now)), mediaType };
	});
}

/** Whatever keeps a file from being copied, the issue says whose it is, and what can be done. */
const refusing =
	(number: string) =>
	(error: unknown): never => {
		const why =
			error instanceof Problem
				? 'the file is locked or damaged, and nothing can be put on it. Leave it out,'
				: 'its copy was not made in time. Issue again,';
		throw new Problem(
			'conflict',
			`${number}: ${why} or let the documents go out as they are. Nothing was issued.`
		);
	};
