import { randomInt } from 'node:crypto';
import { and, eq, isNull, lt, or, sql } from 'drizzle-orm';
import * as contract from '../../contract/passes';
import { Problem } from '../../core/acts/problem';
import { isSheetKind } from '../../core/files/kinds';
import { dayOf } from '../../core/time/days';
import { live, beneath } from '../access/reach';
import type { Querier, Tx } from '../platform/db';
import { content, document, passPerson, place, release, version } from '../platform/db/schema';
import { secretHash } from '../platform/ids';
import { marksOn } from '../marks/read';
import { verifyPassword } from '../platform/auth/passwords';
import { PROOF_HOURS, proofOf } from '../platform/auth/proofs';
import { does, type Pass, type Place, type Project } from '../platform/runner/act';
import { passActor, type Proof } from '../platform/runner/actor';
import { checkTries, countTry } from '../platform/auth/tries';
import { goesOn } from '../documents/acts';
import { countUse } from '../platform/runner/locate';
import { nameAt } from './acts';
/** How long a mailed code holds, in minutes, and how often it may be tried. */
const CODE_MINUTES = 15;
const CODE_TRIES = 5;

export const sendPassCode = does(contract.sendPassCode, {
	async run({ tx, pass: held, project, now, mail }, input) {
		const code = String(randomInt(1_000_000)).padStart(6, '0');
		const named = await tx
			.update(passPerson)
			.set({
				codeHash: secretHash(`${held.id}:${code}`),
				codeEndsAt: new Date(now.getTime() + CODE_MINUTES * 60_000),
				tries: 0
			})
			.where(
				and(
					eq(passPerson.passId, held.id),
					eq(passPerson.email, input.email),
					// Not more often than once a minute.
					or(
						isNull(passPerson.codeEndsAt),
						lt(passPerson.codeEndsAt, new Date(now.getTime() + (CODE_MINUTES - 1) * 60_000))
					)
				)
			)
			.returning();
		if (named.length)
			await mail(
				{ name: held.holderName, address: input.email },
				`${project.code}: your code is ${code}`,
				{
					says: [`Your code for the pass is ${code}.`],
					after: [
						`It holds for ${CODE_MINUTES} minutes, and works once. If you did not ask for it, you can forget this mail.`
					]
				},
				[code]
			);
		// The same answer whether the address is named or not.
		return { minutes: CODE_MINUTES };
	}
});

async function proveAddress(tx: Tx, held: Pass, address: string, code: string, now: Date): Promise<boolean> {
	const [row] = await tx
		.update(passPerson)
		.set({ tries: sql`${passPerson.tries} + 1` })
		.where(and(eq(passPerson.passId, held.id), eq(passPerson.email, address)))
		.returning();
	const right =
		row !== undefined &&
		row.tries <= CODE_TRIES &&
		row.codeEndsAt !== null &&
		row.codeEndsAt > now &&
		row.codeHash === secretHash(`${held.id}:${code.trim()}`);
	// A code works once.
	if (right)
		await tx
			.update(passPerson)
			.set({ codeHash: null, codeEndsAt: null })
			.where(and(eq(passPerson.passId, held.id), eq(passPerson.email, address)));
	return right;
}

export const openPass = does(contract.openPass, {
	async run({ tx, pass: held, proof, services, now, tell }, input) {
		if (proof) return { proof, fresh: false };
		await checkTries(services.database, 'pass', held.id);
		let address: string | null = null;
		// A wrong try must stay counted, so it is answered and not thrown.
		if (held.audience === 'named') {
			if (!input.email || !input.code)
				throw new Problem('needs-proof', 'Prove your mail address first.', { asks: 'address' });
			if (!(await proveAddress(tx, held, input.email, input.code, now))) {
				await countTry(services.database, 'pass', held.id);
				return { proof: null, fresh: false };
			}
			address = input.email;
		}
		if (held.passwordHash) {
			if (input.password === undefined)
				throw new Problem('needs-proof', 'This pass asks for a password.', { asks: 'password' });
			if (!(await verifyPassword({ hash: held.passwordHash, password: input.password }))) {
				await countTry(services.database, 'pass', held.id);
				return { proof: null, fresh: false };
			}
		}
		if (!(await countUse(tx, held, now)))
			throw new Problem(
				'not-found',
				'This pass has been used as often as it may be. Ask the sender for a new one.'
			);
		const [about] = held.releaseId
			? await tx.select().from(release).where(eq(release.id, held.releaseId))
			: [];
		tell({
			...(address ? { by: passActor(held, { email: address }) } : {}),
			kind: 'pass.opened',
			placeId: held.placeId,
			releaseId: held.releaseId,
			details: {
				pass: held.id,
				...(about ? { number: about.number } : { place: await nameAt(tx, held.placeId) })
			}
		});
		const until = Math.min(now.getTime() + PROOF_HOURS * 3_600_000, held.endsAt.getTime());
		const given: Proof = { passId: held.id, email: address, endsAt: until, of: proofOf(held) };
		return { proof: given, fresh: true };
	}
});

/** The version of a document that a pass leads to, or null when the document does not lie within it. */
export async function versionByPass(tx: Querier, held: Pass, at: Place, documentId: string) {
	const [row] = await tx
		.select({
			number: document.number,
			title: document.title,
			label: version.label,
			hash: version.hash,
			fileName: version.fileName,
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
		.where(and(eq(document.id, documentId), live(), withinPass(at)));
	return row ?? null;
}

/** Condition for what lies within a pass: the place and all beneath, but nothing that was closed further down. */
export function withinPass(at: Place) {
	return and(
		eq(place.projectId, at.projectId),
		beneath(at.path),
		sql`not exists (select 1 from place c where c.project_id = ${at.projectId} and c.closed
			and c.id <> ${at.id} and c.path collate "C" like ${at.path + '%'} and ${place.path} like c.path || '%')`
	);
}

/** What a stamp on an outgoing copy says: the project's words, for whom, and the day (T6). */
const stampOf = (here: Project, holder: string, now: Date) =>
	[here.settings.copyStamp, holder, dayOf(now, here.timeZone)].filter(Boolean).join(' · ');

export const takeFromPlacePass = does(contract.takeFromPlacePass, {
	async run({ tx, services, project, pass: held, proof, place: at, now, tell }, input) {
		const row = await versionByPass(tx, held, at, input.document);
		if (!row) throw new Problem('not-found', 'The document is not within this pass.');
		if (input.how === 'downloaded' && !held.mayDownload)
			throw new Problem('needs-level', 'This pass is for viewing only.');
		const taken = input.how === 'downloaded';
		const given = {
			...row,
			stamp: held.stamped && taken ? stampOf(project, held.holderName, now) : null,
			marks:
				held.withMarks && taken && isSheetKind(row.mediaType)
					? await marksOn(tx, services.rooms, project.id, { document: input.document, label: row.label })
					: null
		};
		const kind = `pass.document-${input.how}` as const;
		const what = { kind, actor: passActor(held, proof).id, documentId: input.document, hash: row.hash };
		if (input.ranged && (await goesOn(tx, what, now))) return given;
		tell({
			kind,
			placeId: input.document,
			documentId: input.document,
			details: { pass: held.id, number: row.number, label: row.label, hash: row.hash }
		});
		return given;
	}
});
