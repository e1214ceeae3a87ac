import { and, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { Problem } from '../../core/problem';
import { allows, levelLabel } from '../../core/access/levels';
import type { VersionRow } from '../../core/rows';
import { live } from '../access';
import { defineView } from '../acts/act';
import { id, projectKey } from '../acts/fields';
import { content, document, person, place, release, releaseItem, verdict, version } from '../db/schema';
import { sameBytes } from '../content';
import { breadcrumb } from './tree';
import { documentRows } from './rows';

const documentInput = z.object({ document: id });

export const documentRow = defineView({
	name: 'documentRow',
	summary: 'One document as lists show it',
	path: '/documents/{document}/row',
	input: documentInput,
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	async run({ db, project, place: here, reach, person: me, now }) {
		return (await documentRows(db, { project, reach, readerId: me.id }, eq(place.id, here.id), now))[0]!;
	}
});

export const documentView = defineView({
	name: 'documentView',
	summary: 'A document with its versions, its lock and where it is',
	path: '/documents/{document}',
	input: documentInput,
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	async run({ db, project, place: here, level, reach, person: me, now }) {
		const [row] = await documentRows(db, { project, reach, readerId: me.id }, eq(place.id, here.id), now);
		const versions = await db
			.select({
				label: version.label,
				issued: version.issued,
				at: version.createdAt,
				by: person.name,
				note: version.note,
				fileName: version.fileName,
				size: content.size,
				hash: version.hash,
				mediaType: content.mediaType,
				lockKept: version.lockKept,
				release: release.number,
				verdict: sql<
					string | null
				>`(select max(v.code) from ${verdict} v join pass p on p.id = v.pass_id join ${releaseItem} i on i.release_id = p.release_id and i.document_id = v.document_id
					where v.document_id = ${version.documentId} and i.version_id = ${version.id} and v.signed_at is not null)`
			})
			.from(version)
			.innerJoin(content, eq(content.hash, version.hash))
			.leftJoin(person, eq(person.id, version.createdBy))
			.leftJoin(release, eq(release.id, version.releaseId))
			.where(eq(version.documentId, here.id))
			.orderBy(desc(version.seq));
		return {
			row: row!,
			level,
			levelLabel: levelLabel(level),
			mayWork: allows(level, 'work'),
			mayTake: allows(level, 'take'),
			mayTidy: allows(level, 'tidy'),
			mayRun: allows(level, 'run'),
			mine: here.createdBy === me.id,
			way: (await breadcrumb(db, here, reach)).slice(0, -1),
			versions: versions.map((v): VersionRow => ({ ...v, at: v.at.toISOString() }))
		};
	}
});

/** Most documents that a find answers with. */
const MOST_FOUND = 200;

export const find = defineView({
	name: 'find',
	summary: 'Documents whose number or title holds what is looked for',
	path: '/projects/{project}/find',
	input: z.object({
		project: projectKey,
		q: z.string().trim().min(2, 'Type at least two characters.').max(100)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach, person: me, now }, input) {
		const pattern = `%${input.q.replace(/[\\%_]/g, '\\$&')}%`;
		const fitting = and(
			eq(place.projectId, project.id),
			live(),
			reach.sees(place.scope),
			or(
				sql`${document.number} ilike ${pattern}`,
				sql`${document.title} ilike ${pattern}`,
				sql`${input.q} <% ${document.title}`
			)
		)!;
		return {
			rows: await documentRows(db, { project, reach, readerId: me.id }, fitting, now, { limit: MOST_FOUND })
		};
	}
});

export const knownBytes = defineView({
	name: 'knownBytes',
	summary: 'Documents you may look at that have the very bytes of an upload of yours',
	path: '/projects/{project}/same-bytes',
	input: z.object({ project: projectKey, upload: id }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, reach, person: me }, input) {
		const [row] = await db.execute<{ hash: string }>(
			sql`select hash from upload where id = ${input.upload} and person_id = ${me.id}`
		);
		return { documents: row ? await sameBytes(db, reach, row.hash) : [] };
	}
});

/** The stored bytes of one version, for showing it. The caller notes the opening by an act. */
export const versionContent = defineView({
	name: 'versionContent',
	summary: 'Which stored bytes a version has',
	path: '/documents/{document}/versions/{label}',
	input: z.object({ document: id, label: z.string().max(20) }),
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	async run({ db, place: here }, input) {
		const [row] = await db
			.select({
				label: version.label,
				hash: version.hash,
				fileName: version.fileName,
				mediaType: content.mediaType,
				size: content.size,
				preview: content.preview,
				inspection: content.inspection
			})
			.from(version)
			.innerJoin(content, eq(content.hash, version.hash))
			.where(and(eq(version.documentId, here.id), eq(version.label, input.label)));
		if (!row) throw new Problem('not-found', 'There is no such version.');
		return row;
	}
});

export const inHandOf = defineView({
	name: 'inHandOf',
	summary: 'What you have in hand in a project',
	path: '/projects/{project}/in-hand',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach, person: me, now }) {
		const where = and(
			eq(place.projectId, project.id),
			live(),
			reach.sees(place.scope),
			sql`exists (select 1 from lock l where l.document_id = ${place.id} and l.holder_id = ${me.id} and ${isNull(sql`l.ended_at`)})`
		)!;
		return { rows: await documentRows(db, { project, reach, readerId: me.id }, where, now) };
	}
});
