import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import * as contract from '../../contract/passes';
import { answers } from '../../contract/passes';
import { Problem } from '../../core/acts/problem';
import { releaseNumber } from '../../core/releases';
import { plural } from '../../core/words/sentences';
import { pass, recipient, verdict } from '../platform/db/schema';
import { passActor } from '../platform/runner/actor';
import { tellNotices } from '../notices/tell';
import { does } from '../platform/runner/act';
import { goesOn } from '../documents/acts';
import { gotBy, hadBefore, oneGotBy } from '../releases/got';
import { shareFiles } from '../releases/package';
import { shareOf, storedNote } from '../releases/recipients';
import { settleVerdicts } from '../releases/settling';
import { signersOf } from '../platform/certificate';
import { alongBy, drawnHash, setFilesBeside } from '../releases/answered';
import { workOn } from '../releases/returned';
import type { Tx } from '../platform/db';
import { tellAnswers } from '../trail/following-passes';

export const takeFromPass = does(contract.takeFromPass, {
	async run({ tx, pass: held, proof, release, now, tell }, input) {
		const row = await oneGotBy(tx, held, release, input.document);
		const had = input.before ? await hadBefore(tx, held, release, input.document) : null;
		const given = {
			hash: had?.hash ?? row.sentHash,
			fileName: had?.fileName ?? row.outgoingName!,
			number: row.number,
			title: row.title,
			label: had?.label ?? row.chosenLabel
		};
		const { number, label, hash } = given;
		const kind = `pass.document-${input.how}` as const;
		const what = { kind, actor: passActor(held, proof).id, documentId: row.documentId, hash };
		if (input.ranged && (await goesOn(tx, what, now))) return given;
		tell({
			kind,
			placeId: row.documentId,
			documentId: row.documentId,
			releaseId: release.id,
			details: { number, label, release: had?.release ?? release.number, hash }
		});
		return given;
	}
});

export const takeAllFromPass = does(contract.takeAllFromPass, {
	async run({ tx, services, pass: held, release, tell }) {
		const { share, items: rows } = await gotBy(tx, held, release);
		const note = await storedNote(tx, share.coverNoteHash!);
		tell({
			kind: 'pass.release-downloaded',
			releaseId: release.id,
			details: { number: release.number, documents: rows.length }
		});
		return {
			number: release.number,
			files: shareFiles(
				release.number,
				rows.map((r) => ({ name: r.outgoingName!, hash: r.sentHash!, size: r.sentSize! })),
				{ manifest: share.manifest!, signature: share.manifestSignature!, note },
				await signersOf(services.config)
			)
		};
	}
});

export const confirmReceipt = does(contract.confirmReceipt, {
	async run(context) {
		const { tx, pass: held, release, now, tell } = context;
		const share = await shareOf(tx, held.id);
		if (share.expects === 'information')
			throw new Problem('conflict', 'This release came to you for information; no receipt is asked of you.');
		const done = await tx
			.update(pass)
			.set({ receivedAt: now })
			.where(and(eq(pass.id, share.passId), isNull(pass.receivedAt)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'Receipt was confirmed before.');
		await tellAnswers(tx, share.passId);
		await tellNotices(context, {
			kind: 'release-answered',
			people: [release.builtBy],
			releaseId: release.id,
			sentence: `${held.holderName} confirmed receipt of release ${releaseNumber(release.number)}, “${release.title}”.`,
			way: `releases/${release.number}`
		});
		tell({
			kind: 'receipt.confirmed',
			releaseId: release.id,
			details: { number: release.number, holder: held.holderName }
		});
		return { receivedAt: now.toISOString() };
	}
});

async function keepAnswers(
	tx: Tx,
	held: { id: string },
	about: { id: string },
	given: z.output<typeof answers>
): Promise<void> {
	const { share, items } = await gotBy(tx, held, about);
	if (share.expects !== 'verdicts')
		throw new Problem('conflict', 'No verdicts are asked of you on this release.');
	const known = new Set(items.map((item) => item.documentId));
	if (given.some((a) => !known.has(a.document)))
		throw new Problem('not-found', 'A document answered is not in this release.');
	await tellAnswers(tx, share.passId);
	await tx
		.insert(verdict)
		.values(
			given.map((a) => ({ passId: share.passId, documentId: a.document, code: a.code, remark: a.remark }))
		)
		.onConflictDoUpdate({
			target: [verdict.passId, verdict.documentId],
			set: { code: sql`excluded.code`, remark: sql`excluded.remark` },
			// What was signed stays as it was signed.
			setWhere: isNull(verdict.signedAt)
		});
}

export const saveVerdicts = does(contract.saveVerdicts, {
	async run({ tx, pass: held, release }, input) {
		await keepAnswers(tx, held, release, input.answers);
		return {};
	}
});

export const signVerdicts = does(contract.signVerdicts, {
	async run(context, input) {
		const { tx, pass: held, release, now, tell } = context;
		const given = input.answers.filter((a) => a.code !== null);
		if (!given.length) throw new Problem('invalid', 'Choose a verdict for at least one document.');
		// What is placed and sent along does not change while it is signed.
		const { share, items } = await gotBy(tx, held, release);
		const [main] = await tx.select().from(pass).where(eq(pass.id, share.passId)).for('update');
		const along = await alongBy(tx, [share.passId]);
		const unsaid = given.find((a) => {
			const { placed, drawn, files } = along(share.passId, a.document);
			return (a.code === 'C' || a.code === 'D') && a.remark === '' && ![...placed, ...drawn, ...files].length;
		});
		if (unsaid)
			throw new Problem(
				'invalid',
				'A verdict C or D needs a remark that says why, on the whole or on the sheet.',
				{
					document: unsaid.document
				}
			);
		await keepAnswers(tx, held, release, given);
		const signed = await tx
			.update(verdict)
			.set({ signedAt: now, signedName: input.name })
			.where(
				and(
					eq(verdict.passId, share.passId),
					inArray(
						verdict.documentId,
						given.map((a) => a.document)
					),
					isNull(verdict.signedAt)
				)
			)
			.returning();
		if (!signed.length) throw new Problem('conflict', 'These verdicts were signed before.');
		if (!main!.receivedAt) {
			await tx.update(pass).set({ receivedAt: now }).where(eq(pass.id, share.passId));
			tell({
				kind: 'receipt.confirmed',
				releaseId: release.id,
				details: { number: release.number, holder: held.holderName }
			});
		}
		const [to] = await tx
			.select({ company: recipient.company })
			.from(recipient)
			.where(eq(recipient.id, share.recipientId));
		const { company } = to!;
		for (const one of signed) {
			const item = items.find((i) => i.documentId === one.documentId)!;
			const { placed, drawn, files } = along(share.passId, one.documentId);
			tell({
				kind: 'verdict.given',
				placeId: one.documentId,
				documentId: one.documentId,
				releaseId: release.id,
				details: {
					number: item.number,
					label: item.chosenLabel,
					code: one.code,
					remark: one.remark,
					release: release.number,
					signed: input.name,
					...(placed.length ? { placed: placed.map(({ page, text }) => ({ page, text })) } : {}),
					...(drawn.length ? { drawn: { marks: drawn.length, sha256: drawnHash(drawn) } } : {}),
					...(files.length ? { files: files.map((file) => file.hash) } : {})
				}
			});
			await setFilesBeside(context, release, `${input.name}, ${company}`, files, items);
		}
		const { settled, differing } = await settleVerdicts(
			tx,
			release.id,
			signed.map((one) => one.documentId),
			now
		);
		for (const { documentId, code, says } of settled)
			await workOn(
				context,
				release,
				items.find((i) => i.documentId === documentId)!,
				code,
				says
			);
		const lines = signed
			.map(
				(v) =>
					`${v.code}  ${items.find((i) => i.documentId === v.documentId)!.number}${v.remark ? `  ${v.remark}` : ''}`
			)
			.join('\n');
		await tellNotices(context, {
			kind: 'release-answered',
			people: [release.builtBy],
			releaseId: release.id,
			sentence: `${input.name} signed ${signed.length} of ${items.length} verdicts on release ${releaseNumber(release.number)}, “${release.title}”.`,
			more: differing.length
				? `${lines}\n\nVerdicts differ on ${plural(differing.length, 'document')}; make one of them.`
				: lines,
			way: `releases/${release.number}`
		});
		return { signed: signed.length };
	}
});
