import { and, asc, count, desc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/passes';
import { allows } from '../../core/access/levels';
import { orRefuse } from '../../core/acts/answer';
import { canNow } from '../platform/runner/can';
import { Problem } from '../../core/acts/problem';
import { PASS_ACTS, PASS_RULES } from '../../core/passes/may';
import { beneath, idsOf, live, type Reach } from '../access/reach';
import { answers } from '../platform/runner/act';
import { passAsks } from '../platform/runner/locate';
import { addressOf } from './acts-given';
import { versionByPass, withinPass } from './acts-open';
import { passFacts, runsPass } from './acts';
import { hadBefore, oneGotBy } from '../releases/got';
import type { Querier } from '../platform/db';
import {
	arrival,
	content,
	document,
	hatch,
	pass,
	passPerson,
	person,
	place,
	release,
	version
} from '../platform/db/schema';
import { canStamp } from '../../core/files/kinds';

/** Scopes where the reader has Manage: there they see and end what others made, too. */
function runs(reach: Reach) {
	const scopes = reach.scopes('manage');
	return reach.subject.controller ? sql`true` : scopes.length ? inArray(place.scope, scopes) : sql`false`;
}

/** What came in where the reader decides about it, and nobody has yet; joined to its place. */
export const undecided = (projectId: string, reach: Reach) =>
	and(
		eq(arrival.projectId, projectId),
		live(),
		runs(reach),
		ne(arrival.state, 'sorted'),
		ne(arrival.state, 'refused')
	);

export const passes = answers(contract.passes, {
	async run({ db, project, reach, person: me, self, now }, input) {
		const maker = alias(person, 'maker');
		const [around] = input.place
			? await db
					.select({ path: place.path })
					.from(place)
					.where(and(eq(place.id, input.place), reach.sees(place.scope)))
			: [];
		const rows = await db
			.select({
				id: pass.id,
				holder: pass.holderName,
				place: place.id,
				placeName: place.name,
				placeKind: place.kind,
				number: document.number,
				seen: place.scope,
				release: release.number,
				audience: pass.audience,
				locked: sql<boolean>`${pass.passwordHash} is not null`,
				endsAt: pass.endsAt,
				maxUses: pass.maxUses,
				uses: pass.uses,
				lastUsedAt: pass.lastUsedAt,
				mayDownload: pass.mayDownload,
				stamped: pass.stamped,
				withMarks: pass.withMarks,
				embeddable: pass.embeddable,
				label: version.label,
				by: maker.name,
				sealedSecret: pass.sealedSecret,
				createdBy: pass.createdBy,
				createdAt: pass.createdAt,
				withdrawnAt: pass.withdrawnAt,
				emails: sql<
					string[]
				>`array(select n.email from ${passPerson} n where n.pass_id = ${pass.id} order by n.email)`
			})
			.from(pass)
			.leftJoin(place, eq(place.id, pass.placeId))
			.leftJoin(document, eq(document.id, pass.placeId))
			.leftJoin(release, eq(release.id, pass.releaseId))
			.leftJoin(version, eq(version.id, pass.versionId))
			.leftJoin(maker, eq(maker.id, pass.createdBy))
			.where(
				and(
					eq(pass.projectId, project.id),
					or(and(eq(pass.createdBy, me.id), or(isNull(pass.placeId), reach.sees(place.scope))), runs(reach)),
					around ? or(beneath(around.path), inArray(place.id, idsOf(around.path))) : undefined
				)
			)
			.orderBy(desc(pass.createdAt))
			.limit(2_000);
		const hatches = await db
			.select({
				id: hatch.id,
				title: hatch.title,
				place: place.id,
				placeName: place.name,
				endsAt: hatch.endsAt,
				maxFiles: hatch.maxFiles,
				endings: hatch.endings,
				by: maker.name,
				createdAt: hatch.createdAt,
				withdrawnAt: hatch.withdrawnAt,
				lastUsedAt: hatch.lastUsedAt,
				files: sql<number>`(select count(*)::int from ${arrival} a where a.hatch_id = ${hatch.id})`
			})
			.from(hatch)
			.innerJoin(place, eq(place.id, hatch.placeId))
			.leftJoin(maker, eq(maker.id, hatch.createdBy))
			.where(
				and(
					eq(hatch.projectId, project.id),
					or(and(eq(hatch.createdBy, me.id), reach.sees(place.scope)), runs(reach))
				)
			)
			.orderBy(desc(hatch.createdAt))
			.limit(500);
		const stateOf = (row: { withdrawnAt: Date | null; endsAt: Date }, used = false) =>
			row.withdrawnAt
				? ('withdrawn' as const)
				: row.endsAt <= now
					? ('ended' as const)
					: used
						? ('used-up' as const)
						: ('open' as const);
		return {
			passes: rows.map(({ seen, sealedSecret, createdBy, ...row }) => ({
				...row,
				can: canNow({ self, person: me }, PASS_ACTS, (name) =>
					PASS_RULES[name](passFacts({ ...row, sealedSecret, createdBy }, runsPass(reach, seen), me.id, now))
				),
				endsAt: row.endsAt.toISOString(),
				lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
				createdAt: row.createdAt.toISOString(),
				withdrawnAt: row.withdrawnAt?.toISOString() ?? null,
				state: stateOf(row, row.maxUses !== null && row.uses >= row.maxUses)
			})),
			hatches: hatches.map((row) => ({
				...row,
				endsAt: row.endsAt.toISOString(),
				lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
				createdAt: row.createdAt.toISOString(),
				withdrawnAt: row.withdrawnAt?.toISOString() ?? null,
				state: stateOf(row)
			}))
		};
	}
});

export const passAddress = answers(contract.passAddress, {
	async run({ db, project, reach, person: me, services, now }, input) {
		const [found] = await db
			.select({ held: pass, scope: place.scope })
			.from(pass)
			.leftJoin(place, eq(place.id, pass.placeId))
			.where(and(eq(pass.id, input.pass), eq(pass.projectId, project.id)));
		const runs = found !== undefined && runsPass(reach, found.scope);
		const held = runs || found?.held.createdBy === me.id ? found?.held : undefined;
		if (!held) throw new Problem('not-found', 'There is no such pass, or it is not yours.');
		orRefuse(PASS_RULES.passAddress(passFacts(held, runs, me.id, now)));
		const named = await db
			.select({ email: passPerson.email })
			.from(passPerson)
			.where(eq(passPerson.passId, held.id));
		return { link: addressOf(services.config, held), emails: named.map((n) => n.email) };
	}
});

export const passGate = answers(contract.passGate, {
	async run({ pass: held, proof, project, services }) {
		return {
			id: held.id,
			projectId: project.id,
			leadsTo: held.releaseId ? ('release' as const) : ('place' as const),
			asks: passAsks(held, proof, null),
			alsoPassword: held.audience === 'named' && held.passwordHash !== null,
			accounts: held.audience === 'accounts',
			opened: proof !== null,
			embeddable: held.embeddable,
			endsAt: held.endsAt.toISOString(),
			project: project.name,
			client: project.client,
			demo: services.config.demo
		};
	}
});

/** Most documents listed in one folder of a pass. */
const MOST_LISTED = 5_000;

export const placeByPass = answers(contract.placeByPass, {
	async run({ db, pass: held, place: at, project }, input) {
		const [here] = await db
			.select()
			.from(place)
			.where(and(eq(place.id, input.folder ?? at.id), live(), withinPass(at)));
		if (!here || (input.folder && here.kind === 'document'))
			throw new Problem('not-found', 'This folder is not within the pass.');
		const way = idsOf(here.path).slice(idsOf(at.path).length - 1);
		const names = await db
			.select({ id: place.id, name: place.name })
			.from(place)
			.where(inArray(place.id, way));
		const folders = await db
			.select({ id: place.id, name: place.name })
			.from(place)
			.where(and(eq(place.parentId, here.id), eq(place.kind, 'folder'), live(), withinPass(at)))
			.orderBy(asc(place.name));
		const documents = await db
			.select({
				id: document.id,
				number: document.number,
				title: document.title,
				label: version.label,
				issued: version.issued,
				changedAt: version.createdAt,
				mediaType: content.mediaType,
				size: content.size
			})
			.from(place)
			.innerJoin(document, eq(document.id, place.id))
			.innerJoin(
				version,
				held.versionId ? eq(version.id, held.versionId) : eq(version.id, document.currentVersionId)
			)
			.innerJoin(content, eq(content.hash, version.hash))
			.where(
				and(
					here.kind === 'document' ? eq(place.id, here.id) : eq(place.parentId, here.id),
					live(),
					withinPass(at)
				)
			)
			.orderBy(asc(document.number))
			.limit(MOST_LISTED);
		const newest = held.versionId ? await newestOf(db, at.id) : null;
		return {
			project: { name: project.name, code: project.code, client: project.client, timeZone: project.timeZone },
			holder: held.holderName,
			endsAt: held.endsAt.toISOString(),
			kind: at.kind,
			mayDownload: held.mayDownload,
			stamped: held.stamped,
			withMarks: held.withMarks,
			/** For a pass to exactly one version: the newest one, when that is another. */
			newer:
				newest && newest.id !== held.versionId ? { label: newest.label, at: newest.at.toISOString() } : null,
			way: way.map((step) => names.find((n) => n.id === step)!),
			folders,
			documents: documents.map((d) => ({
				...d,
				changedAt: d.changedAt.toISOString(),
				takeable: held.mayDownload && (!held.stamped || canStamp(d.mediaType))
			}))
		};
	}
});

export const placePassContent = answers(contract.placePassContent, {
	async run({ db, pass: held, place: at }, input) {
		const row = await versionByPass(db, held, at, input.document);
		if (!row) throw new Problem('not-found', 'The document is not within this pass.');
		const { hash, size, mediaType, fileName } = row;
		return { hash, size, mediaType, fileName, mayGive: held.mayDownload, copies: held.stamped };
	}
});

export const releasePassContent = answers(contract.releasePassContent, {
	async run({ db, pass: held, release: about }, input) {
		if (input.before) {
			const had = await hadBefore(db, held, about, input.document);
			const { hash, size, mediaType, fileName } = had;
			return { hash, size, mediaType, fileName, mayGive: true, copies: false };
		}
		const row = await oneGotBy(db, held, about, input.document);
		return {
			hash: row.sentHash,
			size: row.sentSize!,
			mediaType: row.sentType!,
			fileName: row.outgoingName!,
			mayGive: true,
			copies: false
		};
	}
});

async function newestOf(db: Querier, documentId: string) {
	const [row] = await db
		.select({ id: version.id, label: version.label, at: version.createdAt })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(eq(document.id, documentId));
	return row ?? null;
}

/** Who made a hatch, for the sentence on its page. */
async function hatchMaker(db: Querier, hatchId: string): Promise<string> {
	const [row] = await db
		.select({ name: person.name })
		.from(hatch)
		.innerJoin(person, eq(person.id, hatch.createdBy))
		.innerJoin(place, eq(place.id, hatch.placeId))
		.where(and(eq(hatch.id, hatchId), isNull(hatch.withdrawnAt)));
	return row?.name ?? '';
}

export const hatchView = answers(contract.hatchView, {
	async run({ db, hatch: open, project }) {
		return {
			id: open.id,
			title: open.title,
			project: project.name,
			by: await hatchMaker(db, open.id),
			endsAt: open.endsAt.toISOString(),
			maxFileBytes: open.maxFileBytes,
			maxFiles: open.maxFiles,
			endings: open.endings
		};
	}
});

export const arrivals = answers(contract.arrivals, {
	async run({ db, project, reach }) {
		const decider = alias(person, 'decider');
		const rows = await db
			.select({
				id: arrival.id,
				state: arrival.state,
				sender: arrival.sender,
				senderEmail: arrival.senderEmail,
				note: arrival.note,
				fileName: arrival.fileName,
				size: content.size,
				mediaType: content.mediaType,
				scan: arrival.scan,
				hatch: hatch.title,
				place: place.id,
				placeName: place.name,
				document: arrival.documentId,
				decidedBy: decider.name,
				decidedAt: arrival.decidedAt,
				reason: arrival.reason,
				at: arrival.createdAt
			})
			.from(arrival)
			.innerJoin(place, eq(place.id, arrival.placeId))
			.innerJoin(content, eq(content.hash, arrival.hash))
			.leftJoin(hatch, eq(hatch.id, arrival.hatchId))
			.leftJoin(decider, eq(decider.id, arrival.decidedBy))
			.where(and(eq(arrival.projectId, project.id), live(), runs(reach)))
			.orderBy(sql`${arrival.state} in ('sorted', 'refused')`, desc(arrival.createdAt))
			.limit(1_000);
		const [open] = await db
			.select({ n: count() })
			.from(arrival)
			.innerJoin(place, eq(place.id, arrival.placeId))
			.where(undecided(project.id, reach));
		return {
			rows: rows.map((r) => ({
				...r,
				at: r.at.toISOString(),
				decidedAt: r.decidedAt?.toISOString() ?? null
			})),
			waiting: open!.n
		};
	}
});

/** Whether somebody may put files in at a place; everything else about it stays unsaid. */
export const dropView = answers(contract.dropView, {
	async run({ project, place: at, level }) {
		return {
			id: at.id,
			name: allows(level, 'view') ? at.name : null,
			project: project.name,
			maxFileBytes: project.settings.maxFileBytes
		};
	}
});
