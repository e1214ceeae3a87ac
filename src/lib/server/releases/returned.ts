import { and, asc, eq, isNull } from 'drizzle-orm';
import { releaseNumber, VERDICT_LABEL, type Verdict } from '../../core/releases';
import { drawnWords } from '../../core/releases/drawn';
import { dayOf, dayWords } from '../../core/time/days';
import { calendarOf, plusWorkingDays } from '../../core/time/working-days';
import { plural } from '../../core/words/sentences';
import { idsOf } from '../access/reach';
import {
	departmentMember,
	document,
	member,
	place,
	remark,
	verdictRemark,
	type release
} from '../platform/db/schema';
import type { Anchor } from '../../core/remarks/remarks';
import type { Along } from './answered';
import type { GotItem } from './got';
import { tellNotices } from '../notices/tell';
import type { Acting, ContextOf } from '../platform/runner/act';
import { nextNumber } from '../remarks/acts';

/** Working days in which what came back is to be worked on (G7). */
const DAYS = 10;

type Returning = Pick<
	ContextOf['pass'] & Acting,
	'tx' | 'project' | 'services' | 'now' | 'newId' | 'tell' | 'enqueue'
>;

/** What somebody said of a document, and what they placed and drew on its sheets; `by` with their company. */
export interface Said extends Pick<Along, 'placed' | 'drawn'> {
	code: Verdict;
	remark: string;
	by: string;
}

type Item = Pick<GotItem, 'documentId' | 'number' | 'versionId' | 'chosenLabel' | 'mediaType' | 'sentType'>;

/** What somebody said of it as a whole, or where they said it instead. */
const wordsOf = ({ remark: words, placed, drawn }: Said): string => {
	const onSheet = [
		...(placed.length ? [plural(placed.length, 'remark')] : []),
		...(drawn.length ? [plural(drawn.length, 'mark')] : [])
	];
	return (
		words || (onSheet.length ? `see ${onSheet.join(' and ')} on the sheet.` : 'see the file sent with it.')
	);
};

/**
 * Makes work of the verdicts on a document once they have come to one (T8). With C, revise and resubmit, or D, refused, it
 * returns to its department: it is work in progress again, what was said stands on it as remarks for the department to
 * settle by a day, and its leads are told. What was placed on its sheets becomes remarks there, and what was drawn marks,
 * whatever the verdict.
 * @param says what each said who has something to say
 */
export async function workOn(
	context: Returning,
	about: typeof release.$inferSelect,
	item: Item,
	code: Verdict,
	says: readonly Said[]
): Promise<void> {
	const { tx, project, now, newId, tell, enqueue } = context;
	const returns = code === 'C' || code === 'D';
	if (!returns && !says.some((said) => said.placed.length || said.drawn.length)) return;
	const [here] = await tx
		.select({ path: place.path, title: document.title })
		.from(place)
		.innerJoin(document, eq(document.id, place.id))
		.where(eq(place.id, item.documentId));
	const [shelf] = await tx
		.select()
		.from(place)
		.where(eq(place.id, idsOf(here!.path)[0]!));
	const due = returns
		? plusWorkingDays(dayOf(now, project.timeZone), DAYS, calendarOf(project.settings))
		: null;
	const first = await nextNumber(tx, item.documentId);
	const inRelease = `release ${releaseNumber(about.number)}`;
	// What was sent in the stead of a drawing is a PDF of it, with other coordinates than its own.
	const asSent = item.sentType === item.mediaType;
	let number = first;
	const add = async (by: string, anchor: Anchor, text: string): Promise<string> => {
		const id = newId();
		await tx.insert(remark).values({
			id,
			documentId: item.documentId,
			number,
			versionId: item.versionId,
			anchor,
			text,
			// Who answers by a pass has no account; what they said hangs on who issued it, under their own name.
			createdBy: about.issuedBy!,
			fromName: by,
			releaseId: about.id,
			createdAt: now,
			assignedDepartment: shelf!.departmentId,
			due
		});
		tell({
			kind: 'remark.added',
			placeId: item.documentId,
			documentId: item.documentId,
			details: { number: item.number, label: item.chosenLabel, remark: number, text }
		});
		number++;
		return id;
	};
	for (const said of says) {
		if (returns)
			await add(
				said.by,
				{ on: 'version' },
				`${said.code}, ${VERDICT_LABEL[said.code]}, on ${item.chosenLabel} in ${inRelease}: ${wordsOf(said)}`
			);
		for (const { id, page, x, y, text } of said.placed) {
			const made = await add(
				said.by,
				asSent ? { on: 'place', page, x, y } : { on: 'version' },
				asSent ? text : `On page ${page} of what was sent in ${inRelease}: ${text}`
			);
			await tx.update(verdictRemark).set({ remarkId: made }).where(eq(verdictRemark.id, id));
		}
		for (const { page, text } of asSent ? [] : drawnWords(said.drawn.map((one) => one.drawn)))
			await add(
				said.by,
				{ on: 'version' },
				`Drawn on page ${page} of what was sent in ${inRelease}: ${text}`
			);
	}
	if (asSent && says.some((said) => said.drawn.length))
		await enqueue('lay-drawn', { release: about.id, document: item.documentId });
	if (due !== null)
		await sendBackToWork(context, about, {
			...item,
			title: here!.title,
			departmentId: shelf!.departmentId,
			code,
			says,
			first,
			due
		});
}

/** Makes a document work in progress again, and tells the leads of its department what was said. */
async function sendBackToWork(
	context: Returning,
	about: typeof release.$inferSelect,
	item: Item & {
		title: string;
		departmentId: string | null;
		code: Verdict;
		says: readonly Said[];
		/** The first remark that was made of it. */
		first: number;
		due: string;
	}
): Promise<void> {
	const { tx, project, now, tell } = context;
	const { code, says, departmentId, first, due } = item;
	await tx.update(document).set({ state: 'wip' }).where(eq(document.id, item.documentId));
	tell({
		kind: 'document.returned',
		placeId: item.documentId,
		documentId: item.documentId,
		releaseId: about.id,
		details: { number: item.number, label: item.chosenLabel, code, release: about.number, due }
	});
	const leads = departmentId
		? await tx
				.select({ id: departmentMember.personId })
				.from(departmentMember)
				.innerJoin(
					member,
					and(eq(member.personId, departmentMember.personId), eq(member.projectId, project.id))
				)
				.where(
					and(
						eq(departmentMember.departmentId, departmentId),
						eq(departmentMember.lead, true),
						isNull(member.leftAt)
					)
				)
				.orderBy(asc(departmentMember.personId))
		: [];
	await tellNotices(context, {
		kind: 'remark-assigned',
		people: leads.map((l) => l.id),
		placeId: item.documentId,
		sentence: `${says.map((said) => `${said.by} answered ${item.number}, “${item.title}”, with ${said.code}, ${VERDICT_LABEL[said.code]}: ${wordsOf(said)}`).join(' ')} It is your department’s again, to be answered by ${dayWords(due, dayOf(now, project.timeZone))}.`,
		way: `document/${item.documentId}?remark=${first}`
	});
}
