import { eq } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { PURPOSE_LABEL } from '../../core/revisions/revisions';
import { releaseNumber, worst } from '../../core/releases';
import type { Reach } from '../access/reach';
import type { Querier } from '../platform/db';
import { person, release } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { buildOf, checkRelease, releaseItems } from './checks';
import { does } from '../platform/runner/act';
import { goesOn } from '../documents/acts';

export const askApproval = does(contract.askApproval, {
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about, false),
	async run(context) {
		const { tx, person: by, release: about, services, now, tell } = context;
		const items = await checkRelease(services, tx, about, false);
		const having = (result: 'stops' | 'look') => items.filter((i) => worst(i.checks) === result).length;
		if (having('stops'))
			throw new Problem(
				'conflict',
				`${having('stops')} of ${items.length} documents stop the release. Mend them or leave them out first.`
			);
		if (having('look'))
			throw new Problem(
				'conflict',
				`At ${having('look')} of ${items.length} documents there is something to look at. Mend it, or say why it goes out all the same.`
			);
		await tx
			.update(release)
			.set({ state: 'in-review', askedAt: now, sentBackReason: null })
			.where(eq(release.id, about.id));
		const [approver] = await tx.select().from(person).where(eq(person.id, about.approverId));
		await tellNotices(context, {
			kind: 'approval-asked',
			people: [approver!.id],
			releaseId: about.id,
			sentence: `${by.name} asks you to approve release ${releaseNumber(about.number)}, “${about.title}” (${PURPOSE_LABEL[about.purpose].toLowerCase()}, ${items.length} documents).`,
			way: `releases/${about.number}`
		});
		tell({
			kind: 'release.asked',
			releaseId: about.id,
			details: { number: about.number, title: about.title, of: approver!.name }
		});
		return {};
	}
});

export const approveRelease = does(contract.approveRelease, {
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about, false),
	async run({ tx, services, release: about, now, tell }, input) {
		const { build, digest } = await buildOf(tx, about, await checkRelease(services, tx, about, false));
		if (digest !== input.digest)
			throw new Problem(
				'conflict',
				'The release is not what you looked at any more. Nothing was approved; look at what changed.',
				{ build, digest }
			);
		await tx
			.update(release)
			.set({ state: 'approved', approvedAt: now, approvedDigest: digest })
			.where(eq(release.id, about.id));
		tell({
			kind: 'release.approved',
			releaseId: about.id,
			details: { number: about.number, title: about.title, digest }
		});
		return {};
	}
});

export const sendBack = does(contract.sendBack, {
	async run(context, input) {
		const { tx, person: by, release: about, tell } = context;
		await tx
			.update(release)
			.set({ state: 'building', askedAt: null, sentBackReason: input.reason })
			.where(eq(release.id, about.id));
		await tellNotices(context, {
			kind: 'approval-asked',
			people: [about.builtBy],
			releaseId: about.id,
			sentence: `${by.name} sent release ${releaseNumber(about.number)}, “${about.title}”, back: ${input.reason}`,
			way: `releases/${about.number}`
		});
		tell({
			kind: 'release.sent-back',
			releaseId: about.id,
			details: { number: about.number, title: about.title, reason: input.reason }
		});
		return {};
	}
});

export const openFromRelease = does(contract.openFromRelease, {
	async run({ tx, release: about, person: by, reach, now, tell }, input) {
		const row = await itemOnRoute(tx, reach, about.id, input.document);
		if (input.how === 'downloaded' && !row.mayGive)
			throw new Problem(
				'needs-level',
				'On a release’s route one views; taking the file needs Download there.',
				{
					needed: 'download'
				}
			);
		const kind = `document.${input.how}` as const;
		const what = { kind, actor: by.id, documentId: row.documentId, hash: row.hash };
		if (input.ranged && (await goesOn(tx, what, now))) return {};
		tell({
			kind,
			placeId: row.documentId,
			documentId: row.documentId,
			releaseId: about.id,
			details: {
				number: row.number,
				label: row.chosenLabel,
				hash: row.hash,
				release: about.number,
				byRoute: !row.mayView
			}
		});
		return {};
	}
});

/** A document of a release, and what somebody on its route may do with it where it lies. */
export async function itemOnRoute(db: Querier, reach: Reach, releaseId: string, documentId: string) {
	const row = (await releaseItems(db, releaseId)).find((i) => i.documentId === documentId);
	if (!row) throw new Problem('not-found', 'The document is not in this release.');
	const level = reach.held(row, { archived: row.state === 'archived', inHandOf: null });
	return { ...row, mayView: allows(level, 'view'), mayGive: allows(level, 'download') };
}
