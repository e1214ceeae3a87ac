import { and, eq, inArray, sql } from 'drizzle-orm';
import * as contract from '../../contract/hatches';
import { allows } from '../../core/access/levels';
import { whoReaches } from '../../core/access/model';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { DOCUMENT_RULES, mayDo } from '../../core/documents/may';
import { documentFacts, holdDocument } from '../platform/runner/held';
import { loadModel } from '../access/model';
import { ownUploads } from '../content/content';
import type { Querier } from '../platform/db';
import { arrival, content, event, hatch } from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import { tellNotices } from '../notices/tell';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { dayOf, dayWords } from '../../core/time/days';
import { endOfDay } from '../access/entries';
import { addSave, createDocument } from '../documents/acts';
import { visiblePlaces } from '../platform/runner/locate';

export const makeHatch = does(contract.makeHatch, {
	async run(context, input) {
		const { tx, project, place: at, person: by, now, newId, services, tell, mail } = context;
		if (project.settings.outsideLevel === null)
			throw new Problem('invalid', 'This project gives nothing to people outside, so no hatch can be made.');
		const code = newSecret();
		const hatchId = newId();
		const endsAt = endOfDay(input.until, project, now)!;
		await tx.insert(hatch).values({
			id: hatchId,
			projectId: project.id,
			placeId: at.id,
			title: input.title,
			secretHash: secretHash(code),
			endsAt,
			maxFileBytes: input.maxFileBytes,
			maxFiles: input.maxFiles,
			endings: input.endings,
			createdBy: by.id,
			createdAt: now
		});
		const link = `${services.config.origin}/hatch/${code}`;
		if (input.tell)
			await mail(
				{ name: input.tell.name, address: input.tell.email },
				`${project.code}: put your files in here`,
				{
					says: [`${by.name} asks you to send files for ${project.name}.`],
					facts: [
						['What', input.title],
						['Open until', dayWords(input.until, dayOf(now, project.timeZone))]
					],
					link: { word: 'Send files', href: link },
					after: ['No account is needed. You see nothing of what others sent.']
				},
				[link]
			);
		tell({
			kind: 'hatch.made',
			placeId: at.id,
			details: { hatch: hatchId, title: input.title, place: at.name, until: input.until }
		});
		return { id: hatchId, link };
	}
});

export const closeHatches = does(contract.closeHatches, {
	async run({ tx, project, reach, person: by, now, tell }, input) {
		const ids = [...new Set(input.hatches)];
		const rows = await tx
			.select()
			.from(hatch)
			.where(and(inArray(hatch.id, ids), eq(hatch.projectId, project.id)));
		const places = await visiblePlaces(
			tx,
			reach,
			rows.map((r) => r.placeId)
		);
		const mine = rows.filter((r) => {
			const at = places.find((one) => one.id === r.placeId);
			return at !== undefined && (r.createdBy === by.id || allows(reach.level(at.scope), 'manage'));
		});
		if (mine.length !== ids.length)
			throw new Problem('not-found', 'One of these hatches is not yours to close. Nothing was closed.');
		for (const one of mine.filter((r) => !r.withdrawnAt)) {
			await tx.update(hatch).set({ withdrawnAt: now }).where(eq(hatch.id, one.id));
			tell({ kind: 'hatch.closed', placeId: one.placeId, details: { hatch: one.id, title: one.title } });
		}
		return {};
	}
});

/** Takes files in outside the shelves and has them checked; tells those who run the folder. */
async function takeIn(
	context: Pick<
		ContextOf['hatch'] & Acting,
		'tx' | 'services' | 'project' | 'place' | 'now' | 'newId' | 'tell' | 'enqueue'
	>,
	from: { sender: string; email: string | null; note: string; hatchId: string | null; title: string },
	files: { hash: string; fileName: string }[]
): Promise<void> {
	const { tx, project, place: at, now, newId, tell, enqueue } = context;
	for (const file of files) {
		const arrivalId = newId();
		await tx.insert(arrival).values({
			id: arrivalId,
			projectId: project.id,
			placeId: at.id,
			hatchId: from.hatchId,
			sender: from.sender,
			senderEmail: from.email,
			note: from.note,
			fileName: file.fileName,
			hash: file.hash,
			state: 'checking',
			createdAt: now
		});
		await enqueue('check-arrival', { arrivalId });
	}
	tell({
		kind: 'hatch.arrived',
		placeId: at.id,
		details: { title: from.title, sender: from.sender, files: files.length, place: at.name }
	});
	const model = await loadModel(tx, project.id);
	await tellNotices(context, {
		kind: 'hatch-arrival',
		people: whoReaches(model, at.scope, now.getTime())
			.filter((r) => r.level === 'manage')
			.map((r) => r.personId),
		placeId: at.id,
		sentence: `${from.sender} sent ${files.length} ${files.length === 1 ? 'file' : 'files'} for ${at.name}${from.hatchId ? ` through “${from.title}”` : ''}.`,
		way: 'arrivals'
	});
}

/** How many files somebody has put in by a hatch. */
async function filesIn(db: Querier, hatchId: string): Promise<number> {
	const rows = await db.select({ id: arrival.id }).from(arrival).where(eq(arrival.hatchId, hatchId));
	return rows.length;
}

export const putThroughHatch = does(contract.putThroughHatch, {
	async run(context, input) {
		const { tx, hatch: open, now } = context;
		await tx.select().from(hatch).where(eq(hatch.id, open.id)).for('update');
		const before = await filesIn(tx, open.id);
		if (before + input.uploads.length > open.maxFiles)
			throw new Problem(
				'too-many',
				`This hatch takes ${open.maxFiles} files, and ${Math.max(0, open.maxFiles - before)} are left. Nothing was put in.`
			);
		const files = await ownUploads(tx, { hatchId: open.id }, [...new Set(input.uploads)], now);
		await takeIn(
			context,
			{ sender: input.sender, email: input.email, note: input.note, hatchId: open.id, title: open.title },
			files
		);
		await tx.update(hatch).set({ lastUsedAt: now }).where(eq(hatch.id, open.id));
		return { files: files.length };
	}
});

export const dropFiles = does(contract.dropFiles, {
	async run(context, input) {
		const { tx, person: by, now } = context;
		const files = await ownUploads(tx, { personId: by.id }, [...new Set(input.uploads)], now);
		await takeIn(
			context,
			{ sender: by.name, email: by.email, note: input.note, hatchId: null, title: 'Drop' },
			files
		);
		return { files: files.length };
	}
});

async function waiting(context: ContextOf['place'] & Acting, arrivalId: string) {
	const [row] = await context.tx
		.select({ arrival, size: content.size })
		.from(arrival)
		.innerJoin(content, eq(content.hash, arrival.hash))
		.where(and(eq(arrival.id, arrivalId), eq(arrival.placeId, context.place.id)))
		.for('update', { of: arrival });
	if (!row) throw new Problem('not-found', 'This file did not come in here.');
	if (row.arrival.state === 'sorted' || row.arrival.state === 'refused')
		throw new Problem('conflict', `Somebody ${row.arrival.state} it a moment ago.`);
	return row;
}

/** A file that waits and may go on a shelf. Raises `busy` while it is checked, `conflict` when it is not safe. */
async function safe(context: ContextOf['place'] & Acting, arrivalId: string) {
	const found = await waiting(context, arrivalId);
	const { state, scan } = found.arrival;
	if (state === 'checking')
		throw new Problem('busy', 'The file is still being checked. Try again in a moment.');
	if (state === 'unsafe')
		throw new Problem(
			'conflict',
			`It cannot be put on a shelf: ${scan?.fault ?? 'it is not safe.'} Refuse it.`
		);
	return found;
}

export const sortArrival = does(contract.sortArrival, {
	async run(context, input) {
		const { tx, reach, person: by, now, tell } = context;
		const { arrival: row, size } = await safe(context, input.arrival);
		const [target] = await visiblePlaces(tx, reach, [input.folder]);
		if (!target || target.kind === 'document')
			throw new Problem('not-found', 'The folder chosen is not there.');
		if (!allows(reach.held(target, target), 'work'))
			throw new Problem('needs-level', `Adding to ${target.name} needs Work there.`, { needed: 'work' });
		const made = await createDocument(
			context,
			target.id,
			{ hash: row.hash, fileName: row.fileName, size },
			{ number: input.number, title: input.title, note: input.note || `Received from ${row.sender}` }
		);
		await tx
			.update(arrival)
			.set({ state: 'sorted', documentId: made.id, decidedBy: by.id, decidedAt: now })
			.where(eq(arrival.id, row.id));
		tell({
			kind: 'hatch.sorted',
			placeId: made.id,
			documentId: made.id,
			details: { number: made.number, sender: row.sender, file: row.fileName, hash: row.hash }
		});
		return made;
	}
});

export const sortAsVersion = does(contract.sortAsVersion, {
	async run(context, input) {
		const { tx, project, reach, person: by, now, newId, tell, enqueue } = context;
		const { arrival: row, size } = await safe(context, input.arrival);
		const [target] = await visiblePlaces(tx, reach, [input.document]);
		if (target?.kind !== 'document') throw new Problem('not-found', 'The document chosen is not there.');
		const held = await holdDocument(tx, target.id);
		const facts = await documentFacts(tx, { ...context, place: target }, held, now);
		orRefuse(mayDo({ level: 'work', applies: DOCUMENT_RULES.restoreVersion }, facts));
		if (held.current.hash === row.hash)
			throw new Problem(
				'conflict',
				`These are the same bytes as ${held.current.label}. Refuse the file instead.`
			);
		const what = input.note || `Received from ${row.sender}`;
		const label = await addSave(
			tx,
			project,
			held,
			{ hash: row.hash, fileName: row.fileName, note: what, lockKept: held.open !== null },
			{ personId: by.id, at: now, versionId: newId() }
		);
		await tx
			.update(arrival)
			.set({ state: 'sorted', documentId: target.id, decidedBy: by.id, decidedAt: now })
			.where(eq(arrival.id, row.id));
		await enqueue('read-content', { hash: row.hash });
		tell({
			kind: held.open ? 'version.saved' : 'version.handed-in',
			placeId: target.id,
			documentId: target.id,
			details: { number: held.row.number, label, note: what, hash: row.hash, size }
		});
		tell({
			kind: 'hatch.sorted',
			placeId: target.id,
			documentId: target.id,
			details: { number: held.row.number, sender: row.sender, file: row.fileName, hash: row.hash }
		});
		return { id: target.id, number: held.row.number, label };
	}
});

export const refuseArrival = does(contract.refuseArrival, {
	async run(context, input) {
		const { tx, project, person: by, place: at, now, tell, mail } = context;
		const { arrival: row } = await waiting(context, input.arrival);
		await tx
			.update(arrival)
			.set({ state: 'refused', reason: input.reason, decidedBy: by.id, decidedAt: now })
			.where(eq(arrival.id, row.id));
		if (row.senderEmail)
			await mail(
				{ name: row.sender, address: row.senderEmail },
				`${project.code}: ${row.fileName} was not taken in`,
				{
					says: [`The file ${row.fileName} that you sent for ${project.name} was not taken in.`],
					facts: [
						['Reason', input.reason],
						['From', by.name]
					]
				}
			);
		tell({
			kind: 'hatch.refused',
			placeId: at.id,
			details: { file: row.fileName, sender: row.sender, reason: input.reason }
		});
		return { told: row.senderEmail !== null };
	}
});

export const openArrival = does(contract.openArrival, {
	async run(context, input) {
		const { arrival: row } = await waiting(context, input.arrival);
		if (row.state !== 'waiting')
			throw new Problem(
				'conflict',
				row.scan?.fault ?? 'The file is still being checked. Try again in a moment.'
			);
		const file = { hash: row.hash, fileName: row.fileName };
		if (input.ranged && (await lookedAt(context, row.hash))) return file;
		context.tell({
			kind: 'hatch.looked-at',
			placeId: context.place.id,
			details: { file: row.fileName, sender: row.sender, hash: row.hash }
		});
		return file;
	}
});

/** Whether the person began to take these bytes here before, so that a part of them only goes on. */
async function lookedAt({ tx, place: at, person: by }: ContextOf['place'] & Acting, hash: string) {
	const [begun] = await tx
		.select({ seq: event.seq })
		.from(event)
		.where(
			and(
				eq(event.placeId, at.id),
				eq(event.kind, 'hatch.looked-at'),
				eq(event.actor, by.id),
				sql`details->>'hash' = ${hash}`
			)
		)
		.limit(1);
	return begun !== undefined;
}
