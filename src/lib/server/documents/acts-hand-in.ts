import { and, eq } from 'drizzle-orm';
import * as contract from '../../contract/documents';
import { baseSentence } from '../../core/versions/base';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { ownUploads } from '../content/content';
import { content, document, sideVersion, version } from '../platform/db/schema';
import { knownBase } from './known-base';
import { tellNotices } from '../notices/tell';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { addSave, goesOn } from './acts';
import { answerBroken, endLock, giveBack } from '../locks/acts';

type Here = ContextOf['document'] & Acting;

export const handIn = does(contract.handIn, {
	async run(context, input) {
		const { tx, project, document: held, person: by, now, newId, tell, enqueue } = context;
		const [file] = await ownUploads(tx, { personId: by.id }, [input.upload], now);
		const mine = held.open?.holderId === by.id ? held.open : null;
		if (held.current.hash === file!.hash) {
			if (!mine)
				throw new Problem(
					'conflict',
					`These are the same bytes as ${held.current.label}; there is nothing new to hand in.`
				);
			if (!input.keepLock) await giveBack(context, mine, held.row);
			return { kept: 'as-it-was' as const, label: held.current.label };
		}
		const known = await knownBase(tx, held.row.id, by.id);
		const from = input.base ?? known.label;
		if (!mine || input.beside || (input.base !== undefined && input.base !== held.current.label))
			return {
				kept: 'beside' as const,
				side: await setBeside(context, { ...input, base: from }, file!)
			};
		const told = input.base === undefined ? baseSentence(known) : null;
		if (told)
			throw new Problem(
				'stale-base',
				`${told} Say what your file was made from: the newest after all, or keep it beside. Nothing was stored.`,
				{ base: known.label, since: known.since, newest: held.current.label }
			);
		const next = await addSave(
			tx,
			project,
			held,
			{ hash: file!.hash, fileName: file!.fileName, note: input.note, lockKept: input.keepLock },
			{ personId: by.id, at: now, versionId: newId() }
		);
		if (!input.keepLock) await endLock(context, mine, 'handed-in', held.row);
		await enqueue('read-content', { hash: file!.hash });
		tell({
			kind: input.keepLock ? 'version.saved' : 'version.handed-in',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: next, note: input.note, hash: file!.hash, size: file!.size }
		});
		return { kept: 'on-the-line' as const, label: next };
	}
});

/** Keeps what somebody hands in without the lock beside the line, and tells whom it concerns. Gives its number. */
async function setBeside(
	context: Here,
	input: { document: string; note: string; base: string | null },
	file: { hash: string; fileName: string; size: number }
): Promise<number> {
	const { tx, person: by, now, newId, tell, enqueue } = context;
	const { row, current, open } = context.document;
	const sides = await tx.select().from(sideVersion).where(eq(sideVersion.documentId, row.id));
	const twin = sides.find((s) => s.state === 'open' && s.hash === file.hash && s.createdBy === by.id);
	if (twin)
		throw new Problem(
			'conflict',
			`You handed these very bytes in before; they are kept as side version ${twin.number}.`
		);
	const [base] = input.base
		? await tx
				.select({ id: version.id })
				.from(version)
				.where(and(eq(version.documentId, row.id), eq(version.label, input.base)))
		: [];
	if (input.base && !base)
		throw new Problem('invalid', `There is no version ${input.base}.`, { field: 'base' });
	const side = Math.max(0, ...sides.map((s) => s.number)) + 1;
	await tx.insert(sideVersion).values({
		id: newId(),
		documentId: row.id,
		number: side,
		baseVersionId: base?.id ?? null,
		hash: file.hash,
		fileName: file.fileName,
		note: input.note,
		createdBy: by.id,
		createdAt: now
	});
	await answerBroken(context, row.id);
	await enqueue('read-content', { hash: file.hash });
	tell({
		kind: 'version.set-beside',
		placeId: row.id,
		documentId: row.id,
		details: { number: row.number, side, note: input.note, hash: file.hash, size: file.size }
	});
	const whom = [open?.holderId, current.createdBy].filter((one): one is string => !!one && one !== by.id);
	await tellNotices(context, {
		kind: 'side-version',
		people: whom,
		placeId: row.id,
		sentence: `${by.name} handed in ${row.number}, “${row.title}”, without the lock; it is kept as side version ${side}: ${input.note}`,
		way: `document/${row.id}?side=${side}`
	});
	return side;
}

async function openSide({ tx }: Acting, input: { document: string; side: number }) {
	const [found] = await tx
		.select()
		.from(sideVersion)
		.where(and(eq(sideVersion.documentId, input.document), eq(sideVersion.number, input.side)));
	if (!found) throw new Problem('not-found', `There is no side version ${input.side}.`);
	if (found.state !== 'open')
		throw new Problem('conflict', `Side version ${input.side} was ${found.state} already.`);
	return found;
}

export const mergeSide = does(contract.mergeSide, {
	async run(context, input) {
		const { tx, project, document: held, person: by, now, newId, tell, enqueue } = context;
		const side = await openSide(context, input);
		const [file] = input.upload ? await ownUploads(tx, { personId: by.id }, [input.upload], now) : [side];
		if (file!.hash === held.current.hash)
			throw new Problem(
				'conflict',
				`These are the same bytes as ${held.current.label}. Discard the side version instead.`
			);
		const next = await addSave(
			tx,
			project,
			held,
			{
				hash: file!.hash,
				fileName: file!.fileName,
				note: input.note || `Merged side version ${side.number}: ${side.note}`,
				lockKept: true
			},
			{ personId: by.id, at: now, versionId: newId() }
		);
		await tx
			.update(sideVersion)
			.set({ state: 'merged', decidedBy: by.id, decidedAt: now, reason: `as ${next}` })
			.where(eq(sideVersion.id, side.id));
		await enqueue('read-content', { hash: file!.hash });
		tell({
			kind: 'version.merged',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, label: next, side: side.number, hash: file!.hash }
		});
		return { label: next };
	}
});

export const discardSide = does(contract.discardSide, {
	async run(context, input) {
		const { tx, person: by, now, tell } = context;
		const { row } = context.document;
		const side = await openSide(context, input);
		await tx
			.update(sideVersion)
			.set({ state: 'discarded', decidedBy: by.id, decidedAt: now, reason: input.reason })
			.where(eq(sideVersion.id, side.id));
		tell({
			kind: 'version.dropped',
			placeId: input.document,
			documentId: input.document,
			details: { number: row.number, side: side.number, reason: input.reason }
		});
		// Who sent it by a pass has no account to be told in.
		if (side.createdBy !== by.id && side.fromName === null)
			await tellNotices(context, {
				kind: 'side-version',
				people: [side.createdBy],
				placeId: row.id,
				sentence: `${by.name} discarded your side version ${side.number} of ${row.number}: ${input.reason}`,
				way: `document/${row.id}?side=${side.number}`
			});
		return {};
	}
});

export const takeSide = does(contract.takeSide, {
	async run({ tx, level, person: by, now, tell }, input) {
		if (input.how === 'downloaded' && !allows(level, 'download'))
			throw new Problem('needs-level', 'This needs Download here.', { needed: 'download', held: level });
		const [found] = await tx
			.select({
				number: document.number,
				hash: sideVersion.hash,
				fileName: sideVersion.fileName,
				mediaType: content.mediaType,
				size: content.size
			})
			.from(sideVersion)
			.innerJoin(document, eq(document.id, sideVersion.documentId))
			.innerJoin(content, eq(content.hash, sideVersion.hash))
			.where(and(eq(sideVersion.documentId, input.document), eq(sideVersion.number, input.side)));
		if (!found) throw new Problem('not-found', `There is no side version ${input.side}.`);
		const kind = input.how === 'opened' ? 'document.opened' : 'document.downloaded';
		const what = { kind, actor: by.id, documentId: input.document, hash: found.hash };
		if (input.ranged && (await goesOn(tx, what, now))) return found;
		tell({
			kind,
			placeId: input.document,
			documentId: input.document,
			details: { number: found.number, label: `side ${input.side}`, hash: found.hash }
		});
		return found;
	}
});
