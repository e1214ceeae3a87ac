import { asc, eq, inArray, max, sql } from 'drizzle-orm';
import type { z } from 'zod';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import type { Reach } from '../access/reach';
import { checkOffDesk } from '../places/desks';
import type { Tx } from '../platform/db';
import { document, project, release, releaseItem, version } from '../platform/db/schema';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { visiblePlaces } from '../platform/runner/locate';
import { checkedArrangement } from './arranged';
import { putRecipients, recipientsOf } from './recipients';
import { checkRouteHere, handsWith } from './route';

/**
 * Puts documents into a release, as their newest versions, behind those that it holds.
 * @returns how many it did not hold before
 * @throws Problem `not-found` where one is not there, or not to be seen by whoever asks; `conflict` where one lies on a
 *   desk
 */
export async function addItems(
	tx: Tx,
	reach: Reach,
	projectId: string,
	releaseId: string,
	ids: string[]
): Promise<number> {
	const unique = [...new Set(ids)];
	const visible = (await visiblePlaces(tx, reach, unique)).filter(
		(p) => p.kind === 'document' && p.projectId === projectId
	);
	if (visible.length !== unique.length)
		throw new Problem('not-found', 'A document chosen is not there any more.');
	if (!unique.length) return 0;
	checkOffDesk(reach, visible);
	const [last] = await tx
		.select({ at: max(releaseItem.position) })
		.from(releaseItem)
		.where(eq(releaseItem.releaseId, releaseId));
	const rows = await tx
		.select({ id: document.id, versionId: version.id, label: version.label })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(inArray(document.id, unique))
		.orderBy(asc(document.number));
	const inserted = await tx
		.insert(releaseItem)
		.values(
			rows.map((r, i) => ({
				releaseId,
				documentId: r.id,
				versionId: r.versionId,
				fromLabel: r.label,
				position: (last?.at ?? -1) + 1 + i
			}))
		)
		.onConflictDoNothing()
		.returning({ id: releaseItem.documentId });
	return inserted.length;
}

type Building = Omit<z.output<typeof contract.buildRelease.input>, 'project'>;

/** Begins a release under the next number of the project. */
async function begin(
	{ tx, project: here, person: by, reach, now, newId, tell }: ContextOf['project'] & Acting,
	input: Building
): Promise<{ id: string; number: number }> {
	await checkRouteHere(tx, here, input.route, await handsWith(tx, null, here, by.id));
	const [counted] = await tx
		.update(project)
		.set({ nextRelease: sql`${project.nextRelease} + 1` })
		.where(eq(project.id, here.id))
		.returning();
	const number = counted!.nextRelease - 1;
	const releaseId = newId();
	await tx.insert(release).values({
		id: releaseId,
		projectId: here.id,
		number,
		title: input.title,
		purpose: input.purpose,
		state: 'building',
		words: input.words,
		stamped: input.stamped,
		withMarks: input.withMarks,
		arrangement: input.arrangement,
		route: input.route,
		replyBy: input.replyBy,
		builtBy: by.id,
		createdAt: now
	});
	await putRecipients(tx, here.id, releaseId, input.recipients);
	const added = await addItems(tx, reach, here.id, releaseId, input.documents);
	tell({
		kind: 'release.built',
		releaseId,
		details: { number, title: input.title, purpose: input.purpose, documents: added }
	});
	return { id: releaseId, number };
}

export const buildRelease = does(contract.buildRelease, {
	run: (context, input) =>
		begin(context, { ...input, arrangement: checkedArrangement(context.project, input.arrangement) })
});

export const buildAnother = does(contract.buildAnother, {
	async run(context) {
		const { tx, reach, release: like } = context;
		const held = await tx
			.select({ id: releaseItem.documentId })
			.from(releaseItem)
			.where(eq(releaseItem.releaseId, like.id));
		const there = await visiblePlaces(
			tx,
			reach,
			held.map((one) => one.id)
		);
		const documents = there.map((one) => one.id);
		const recipients = (await recipientsOf(tx, like.id)).map((one) => ({
			recipient: one.recipientId,
			expects: one.expects,
			// Days by which somebody was to reply are gone by; the release asks for its own.
			replyBy: null,
			asks: one.asks,
			documents: one.documents?.filter((of) => documents.includes(of)) ?? null
		}));
		const { title, purpose, words, stamped, withMarks, arrangement, route } = like;
		const made = await begin(context, {
			title,
			purpose,
			words,
			stamped,
			withMarks,
			arrangement,
			route: route.map((step) => ({ ...step, of: [...step.of] })),
			replyBy: null,
			recipients,
			documents
		});
		if (arrangement.order === 'placed')
			await tx.execute(sql`
				update release_item i set placed = before.placed from release_item before
				where i.release_id = ${made.id} and before.release_id = ${like.id} and before.document_id = i.document_id`);
		return { ...made, gone: held.length - documents.length };
	}
});
