import { and, asc, desc, eq, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { CONTRACTS } from '../../contract';
import * as contract from '../../contract/releases';
import { canNow } from '../platform/runner/can';
import { mayRelease, RELEASE_ACTS } from '../../core/releases/may';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { label, nextIssue, parse } from '../../core/revisions/revisions';
import { worst } from '../../core/releases';
import { releaseFacts } from '../platform/runner/held-release';
import { answers, type Project, type Release } from '../platform/runner/act';
import { itemOnRoute } from './acts-approval';
import type { Querier } from '../platform/db';
import { pass, person, recipient, release, releaseItem, verdict, version } from '../platform/db/schema';
import { buildOf, checkRelease, releaseItems } from './checks';
import type { Services } from '../platform/services';

export const releases = answers(contract.releases, {
	async run({ db, project, reach, person: me }) {
		const approver = alias(person, 'approver');
		const rows = await db
			.select({
				id: release.id,
				number: release.number,
				title: release.title,
				purpose: release.purpose,
				state: release.state,
				replyBy: release.replyBy,
				issuedAt: release.issuedAt,
				createdAt: release.createdAt,
				builtBy: person.name,
				approver: approver.name,
				/** The reader's approval is asked for. */
				waitsForMe: sql<boolean>`(${release.approverId} = ${me.id} and ${release.state} = 'in-review')`,
				to: recipient.company,
				toName: recipient.name,
				received: pass.receivedAt,
				documents: sql<number>`(select count(*)::int from ${releaseItem} i where i.release_id = ${release.id})`,
				answered: sql<number>`(select count(*)::int from ${verdict} v where v.pass_id = ${pass.id} and v.signed_at is not null)`
			})
			.from(release)
			.innerJoin(person, eq(person.id, release.builtBy))
			.innerJoin(approver, eq(approver.id, release.approverId))
			.innerJoin(recipient, eq(recipient.id, release.recipientId))
			.leftJoin(pass, eq(pass.releaseId, release.id))
			.where(
				and(
					eq(release.projectId, project.id),
					reach.subject.controller
						? sql`true`
						: and(eq(release.approverId, me.id), sql`${release.state} <> 'building'`)
				)
			)
			.orderBy(desc(release.number));
		return {
			releases: rows.map((row) => ({
				...row,
				issuedAt: row.issuedAt?.toISOString() ?? null,
				createdAt: row.createdAt.toISOString(),
				received: row.received?.toISOString() ?? null
			}))
		};
	}
});

export const releaseContent = answers(contract.releaseContent, {
	async run({ db, release: about, reach }, input) {
		const row = await itemOnRoute(db, reach, about.id, input.document);
		const { hash, size, mediaType, fileName, number, title, chosenLabel, mayGive } = row;
		return { hash, size, mediaType, fileName, number, title, label: chosenLabel, mayGive };
	}
});

/** Later issued revision of each item, if there is one, and the day it was issued. */
async function laterRevisions(db: Querier, releaseId: string) {
	const later = alias(version, 'later');
	const rows = await db
		.selectDistinctOn([releaseItem.documentId], {
			documentId: releaseItem.documentId,
			label: later.label,
			at: later.createdAt
		})
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			later,
			and(
				eq(later.documentId, releaseItem.documentId),
				eq(later.issued, true),
				sql`${later.seq} > ${version.seq}`
			)
		)
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(releaseItem.documentId, desc(later.seq));
	return new Map(rows.map((r) => [r.documentId, { label: r.label, at: r.at.toISOString() }]));
}

/** The newest issued revision of each document of a release before the one it gets. */
async function earlierRevisions(db: Querier, releaseId: string): Promise<Map<string, string>> {
	const earlier = alias(version, 'earlier');
	const rows = await db
		.selectDistinctOn([releaseItem.documentId], { documentId: releaseItem.documentId, label: earlier.label })
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.innerJoin(
			earlier,
			and(
				eq(earlier.documentId, releaseItem.documentId),
				eq(earlier.issued, true),
				sql`${earlier.seq} < ${version.seq}`
			)
		)
		.where(eq(releaseItem.releaseId, releaseId))
		.orderBy(releaseItem.documentId, desc(earlier.seq));
	return new Map(rows.map((r) => [r.documentId, r.label]));
}

async function answersOf(db: Querier, releaseId: string) {
	const rows = await db
		.select({
			documentId: verdict.documentId,
			code: verdict.code,
			remark: verdict.remark,
			signedAt: verdict.signedAt,
			signedName: verdict.signedName
		})
		.from(verdict)
		.innerJoin(pass, eq(pass.id, verdict.passId))
		.where(eq(pass.releaseId, releaseId));
	return new Map(rows.map((r) => [r.documentId, r]));
}

/** What the contract of an act of a release asks for. */
const ASKED = new Map(
	CONTRACTS.flatMap(({ name, at }) => (at.kind === 'release' ? [[name, at] as const] : []))
);

export const releaseView = answers(contract.releaseView, {
	async run({ db, project, reach, person: me, self, services, now }, input) {
		const [about] = await db
			.select()
			.from(release)
			.where(and(eq(release.projectId, project.id), eq(release.number, input.number)));
		const controller = reach.subject.controller;
		if (!about || !(controller || (about.approverId === me.id && about.state !== 'building')))
			throw new Problem('not-found', 'There is nothing here, or nothing that you may look at.');
		const named = await db
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(
				or(
					...[about.builtBy, about.approverId, about.issuedBy]
						.filter((v): v is string => v !== null)
						.map((v) => eq(person.id, v))
				)
			);
		const nameOf = (id: string | null) => named.find((n) => n.id === id)?.name ?? null;
		const [to] = await db.select().from(recipient).where(eq(recipient.id, about.recipientId));
		const [held] = await db
			.select()
			.from(pass)
			.where(eq(pass.releaseId, about.id))
			.orderBy(asc(pass.createdAt));
		const done = about.state === 'issued' || about.state === 'superseded';
		const checks = done || about.state === 'cancelled' ? [] : await checkRelease(services, db, about, false);
		const looked = checks.length ? await buildOf(db, about, checks) : null;
		const earlier = done ? new Map<string, string>() : await earlierRevisions(db, about.id);
		const later = done
			? await laterRevisions(db, about.id)
			: new Map<string, { label: string; at: string }>();
		const answers = done ? await answersOf(db, about.id) : new Map();
		const facts = await releaseFacts(db, about, { id: me.id, controller }, now);
		const items = (await releaseItems(db, about.id)).map((row) => {
			const current = parse(project.settings.revisions, row.chosenLabel);
			const verdictOf = answers.get(row.documentId);
			return {
				documentId: row.documentId,
				number: row.number,
				title: row.title,
				from: row.fromLabel,
				label: row.chosenLabel,
				to: done
					? row.chosenLabel
					: current
						? label(project.settings.revisions, nextIssue(project.settings.revisions, current, about.purpose))
						: '?',
				hash: row.pinnedHash,
				size: row.size,
				mediaType: row.mediaType,
				mayView: allows(reach.level(row.scope), 'view'),
				checks: checks.find((c) => c.documentId === row.documentId)?.checks ?? [],
				later: later.get(row.documentId) ?? null,
				/** The issued revision that this one takes the place of. */
				supersedes: earlier.get(row.documentId) ?? null,
				verdict: verdictOf?.signedAt ? { code: verdictOf.code, remark: verdictOf.remark } : null
			};
		});
		return {
			release: {
				id: about.id,
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				state: about.state,
				replyBy: about.replyBy,
				builtBy: nameOf(about.builtBy)!,
				approver: nameOf(about.approverId)!,
				approverId: about.approverId,
				issuedBy: nameOf(about.issuedBy),
				createdAt: about.createdAt.toISOString(),
				askedAt: about.askedAt?.toISOString() ?? null,
				approvedAt: about.approvedAt?.toISOString() ?? null,
				issuedAt: about.issuedAt?.toISOString() ?? null,
				sentBackReason: about.sentBackReason,
				cancelledAt: about.cancelledAt?.toISOString() ?? null,
				cancelledReason: about.cancelledReason,
				recipientId: about.recipientId,
				recipient: { name: to!.name, company: to!.company, email: to!.email },
				manifestHash: about.manifestHash
			},
			items,
			stopping: items.filter((i) => i.checks.length && worst(i.checks) === 'stops').length,
			looking: items.filter((i) => i.checks.length && worst(i.checks) === 'look').length,
			controller,
			/** What an approval approves, and by what it says so. */
			build: looked?.build ?? null,
			digest: looked?.digest ?? null,
			can: canNow({ self, person: me }, RELEASE_ACTS, (name) => mayRelease(ASKED.get(name)!, facts)),
			pass: held && {
				endsAt: held.endsAt.toISOString(),
				withdrawnAt: held.withdrawnAt?.toISOString() ?? null,
				uses: held.uses,
				lastUsedAt: held.lastUsedAt?.toISOString() ?? null,
				receivedAt: held.receivedAt?.toISOString() ?? null
			}
		};
	}
});

export const passView = answers(contract.passView, {
	async run({ db, project, pass: held, release: about, services }) {
		return describePass(services, db, project, held, about);
	}
});

async function describePass(
	services: Services,
	db: Querier,
	project: Project,
	held: typeof pass.$inferSelect,
	about: Release
) {
	const [issuer] = await db.select({ name: person.name }).from(person).where(eq(person.id, about.issuedBy!));
	const answers = await answersOf(db, about.id);
	const later = await laterRevisions(db, about.id);
	const items = (await releaseItems(db, about.id)).map((row) => {
		const given = answers.get(row.documentId);
		return {
			documentId: row.documentId,
			number: row.number,
			title: row.title,
			label: row.chosenLabel,
			size: row.size,
			mediaType: row.mediaType,
			hash: row.pinnedHash!,
			later: later.get(row.documentId) ?? null,
			code: given?.code ?? null,
			remark: given?.remark ?? '',
			signed: given?.signedAt ? { at: given.signedAt.toISOString(), name: given.signedName! } : null
		};
	});
	return {
		project: { code: project.code, name: project.name, client: project.client, timeZone: project.timeZone },
		holder: held.holderName,
		endsAt: held.endsAt.toISOString(),
		receivedAt: held.receivedAt?.toISOString() ?? null,
		release: {
			number: about.number,
			title: about.title,
			purpose: about.purpose,
			issuedAt: about.issuedAt!.toISOString(),
			issuedBy: issuer!.name,
			replyBy: about.replyBy,
			superseded: about.state === 'superseded'
		},
		items,
		demo: services.config.demo
	};
}

export const passCoverNote = answers(contract.passCoverNote, {
	async run({ release: about }) {
		return { hash: about.coverNoteHash!, number: about.number };
	}
});

export const releaseCoverNote = answers(contract.releaseCoverNote, {
	async run({ release: about }) {
		if (!about.coverNoteHash)
			throw new Problem('not-found', 'The cover note is made when the release is issued.');
		return { hash: about.coverNoteHash, number: about.number };
	}
});
