import canonicalize from 'canonicalize';
import { and, eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { decidersOf, listedNumbers, MOST_UNKNOWN, releaseNumber } from '../../core/releases';
import type { Tx } from '../platform/db';
import { document, place, release, releaseItem, releaseOverride, version } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { checkedArrangement } from './arranged';
import { checkRelease, missingReferences } from './checks';
import { putRecipients, recipientsOf } from './recipients';
import { checkRouteHere, handsWith, routeWords } from './route';
import { addItems } from './acts-begin';
import { offDesks } from '../places/desks';
import { does } from '../platform/runner/act';
import { decisionsOf, turnIn } from '../platform/runner/on-route';
import { visiblePlaces } from '../platform/runner/locate';

/** Opens the build of a release that is held, since it changes: whatever was approved is asked anew. */
export async function reopen(tx: Tx, releaseId: string): Promise<void> {
	await tx
		.update(release)
		.set({ state: 'building', askedAt: null, approvedAt: null, turn: null, turnSince: null })
		.where(eq(release.id, releaseId));
}

export const changeRelease = does(contract.changeRelease, {
	async run({ tx, project: here, person: by, release: before, tell }, input) {
		// What is not named stays as it is.
		const next = {
			title: input.title ?? before.title,
			purpose: input.purpose ?? before.purpose,
			words: input.words ?? before.words,
			stamped: input.stamped ?? before.stamped,
			withMarks: input.withMarks ?? before.withMarks,
			arrangement: input.arrangement ? checkedArrangement(here, input.arrangement) : before.arrangement,
			route: input.route ?? before.route,
			replyBy: input.replyBy === undefined ? before.replyBy : input.replyBy
		};
		const changed = (Object.keys(next) as (keyof typeof next)[]).filter(
			(key) => canonicalize(next[key]) !== canonicalize(before[key])
		) as string[];
		const went = (await recipientsOf(tx, before.id)).map((one) => ({
			recipient: one.recipientId,
			expects: one.expects,
			replyBy: one.replyBy,
			asks: one.asks,
			documents: one.documents
		}));
		const recipients = input.recipients ?? went;
		if (canonicalize(recipients) !== canonicalize(went)) changed.push('recipients');
		if (!changed.length) return {};
		await checkRouteHere(tx, here, next.route, await handsWith(tx, before.id, here, by.id));
		if (input.recipients) await putRecipients(tx, here.id, before.id, input.recipients);
		await tx.update(release).set(next).where(eq(release.id, before.id));
		await reopen(tx, before.id);
		tell({
			kind: 'release.changed',
			releaseId: before.id,
			details: {
				number: before.number,
				title: next.title,
				purpose: next.purpose,
				changed,
				...(changed.includes('route')
					? {
							route: (await routeWords(tx, next.route)).join('; '),
							routeBefore: (await routeWords(tx, before.route)).join('; ')
						}
					: {})
			}
		});
		return {};
	}
});

export const cancelRelease = does(contract.cancelRelease, {
	async run(context, input) {
		const { tx, project: here, person: by, release: about, now, tell } = context;
		const turn = await turnIn(tx, about, here, by.id, now);
		await tx
			.update(release)
			.set({ state: 'cancelled', turn: null, cancelledAt: now, cancelledReason: input.reason })
			.where(eq(release.id, about.id));
		const asked = new Set([
			...(turn ? about.route[turn.at]!.of.flatMap((one) => decidersOf(one, turn.speakers)) : []),
			...(await decisionsOf(tx, about.id)).map((one) => one.by)
		]);
		asked.delete(by.id);
		if (asked.size)
			await tellNotices(context, {
				kind: 'approval-asked',
				people: [...asked],
				releaseId: about.id,
				sentence: `${by.name} cancelled release ${releaseNumber(about.number)}, “${about.title}”: ${input.reason}`,
				way: `releases/${about.number}`
			});
		tell({
			kind: 'release.cancelled',
			releaseId: about.id,
			details: { number: about.number, title: about.title, reason: input.reason }
		});
		return {};
	}
});

export const acceptChecks = does(contract.acceptChecks, {
	async run({ tx, services, person: by, release: about, now, tell }, input) {
		await reopen(tx, about.id);
		const items = await checkRelease(services, tx, about, false);
		for (const one of input.checks) {
			const item = items.find((i) => i.documentId === one.document);
			const check = item?.checks.find((c) => c.name === one.check);
			if (!item || check?.result !== 'look')
				throw new Problem(
					'conflict',
					`${item?.number ?? 'A document'} has nothing to look at there any more. Look at the checks again.`
				);
			const what = { sentence: check.sentence, reason: input.reason, decidedBy: by.id, decidedAt: now };
			await tx
				.insert(releaseOverride)
				.values({ releaseId: about.id, documentId: one.document, check: one.check, ...what })
				.onConflictDoUpdate({
					target: [releaseOverride.releaseId, releaseOverride.documentId, releaseOverride.check],
					set: what
				});
			tell({
				kind: 'release.accepted',
				releaseId: about.id,
				details: {
					number: about.number,
					document: item.number,
					check: one.check,
					sentence: check.sentence,
					reason: input.reason
				}
			});
		}
		return {};
	}
});

export const addToRelease = does(contract.addToRelease, {
	async run({ tx, project: here, reach, release: about, tell }, input) {
		await reopen(tx, about.id);
		const added = await addItems(tx, reach, here.id, about.id, input.documents);
		if (!added) throw new Problem('conflict', 'They are in this release already.');
		tell({ kind: 'release.changed', releaseId: about.id, details: { number: about.number, added } });
		return { added };
	}
});

export const addListed = does(contract.addListed, {
	async run({ tx, project: here, reach, release: about, tell }, input) {
		const { numbering, revisions } = here.settings;
		const lines = listedNumbers(input.list, numbering, revisions);
		if (lines.length > contract.MOST_ITEMS)
			throw new Problem(
				'too-large',
				`A list has ${contract.MOST_ITEMS} lines at most, and this has ${lines.length}. Paste it in parts.`,
				{ field: 'list' }
			);
		const asked = [...new Set(lines.flatMap((one) => one.numbers))];
		const found = asked.length
			? await tx
					.select({ id: document.id, number: sql<string>`upper(${document.number})` })
					.from(document)
					.innerJoin(place, eq(place.id, document.id))
					.where(
						and(
							eq(document.projectId, here.id),
							eq(document.live, true),
							offDesks(place.scope),
							sql`upper(${document.number}) = any(${sql.param(asked)}::text[])`
						)
					)
			: [];
		const known = new Set(found.map((row) => row.number));
		const unknown = lines.filter((one) => !one.numbers.some((number) => known.has(number)));
		if (!found.length)
			throw new Problem('invalid', 'No line names a document of this project by its number.', {
				field: 'list'
			});
		const added = await addItems(
			tx,
			reach,
			here.id,
			about.id,
			found.map((row) => row.id)
		);
		if (!added && !unknown.length) throw new Problem('conflict', 'They are in this release already.');
		if (added) {
			await reopen(tx, about.id);
			tell({ kind: 'release.changed', releaseId: about.id, details: { number: about.number, added } });
		}
		return {
			added,
			before: found.length - added,
			unknown: unknown.slice(0, MOST_UNKNOWN).map((one) => one.line.slice(0, 120))
		};
	}
});

export const addReferences = does(contract.addReferences, {
	async run({ tx, project: here, reach, release: about, tell }, input) {
		const missing = await missingReferences(tx, about, input.document);
		const seen = await visiblePlaces(tx, reach, missing);
		if (!seen.length) throw new Problem('conflict', 'It names nothing that could be put in this release.');
		await reopen(tx, about.id);
		const added = await addItems(
			tx,
			reach,
			here.id,
			about.id,
			seen.map((one) => one.id)
		);
		tell({ kind: 'release.changed', releaseId: about.id, details: { number: about.number, added } });
		return { added };
	}
});

export const leaveOut = does(contract.leaveOut, {
	async run({ tx, release: about, tell }, input) {
		await reopen(tx, about.id);
		const [gone] = await tx
			.delete(releaseItem)
			.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, input.document)))
			.returning();
		if (!gone) throw new Problem('conflict', 'The document is not in this release.');
		const [row] = await tx
			.select({ number: document.number })
			.from(document)
			.where(eq(document.id, input.document));
		tell({
			kind: 'release.changed',
			releaseId: about.id,
			details: { number: about.number, leftOut: row!.number }
		});
		return {};
	}
});

export const orderDocuments = does(contract.orderDocuments, {
	async run({ tx, release: about, tell }, input) {
		const moved = await tx.execute(sql`
			update release_item i set placed = wanted.place
			from release_item held left join unnest(${sql.param(input.documents)}::text[]) with ordinality wanted(id, place)
				on wanted.id = held.document_id
			where held.release_id = ${about.id} and i.release_id = held.release_id and i.document_id = held.document_id
				and i.placed is distinct from wanted.place
			returning i.document_id`);
		if (!moved.length && about.arrangement.order === 'placed') return {};
		await reopen(tx, about.id);
		const arrangement = { ...about.arrangement, order: 'placed' as const };
		await tx.update(release).set({ arrangement }).where(eq(release.id, about.id));
		tell({
			kind: 'release.changed',
			releaseId: about.id,
			details: { number: about.number, reordered: true }
		});
		return {};
	}
});

export const takeNewest = does(contract.takeNewest, {
	async run({ tx, release: about, tell }, input) {
		await reopen(tx, about.id);
		const [row] = await tx
			.select({ versionId: version.id, label: version.label, number: document.number })
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.where(eq(document.id, input.document));
		const done = row
			? await tx
					.update(releaseItem)
					.set({ versionId: row.versionId, fromLabel: row.label })
					.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, input.document)))
					.returning()
			: [];
		if (!row || !done.length) throw new Problem('conflict', 'The document is not in this release.');
		tell({
			kind: 'release.changed',
			releaseId: about.id,
			details: { number: about.number, newest: `${row.number} ${row.label}` }
		});
		return { label: row.label };
	}
});
