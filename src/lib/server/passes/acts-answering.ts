import { and, count, eq, max } from 'drizzle-orm';
import * as contract from '../../contract/answering';
import { Problem } from '../../core/acts/problem';
import { ownUploads } from '../content/content';
import { colleague, pass, verdictFile, verdictRemark } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { MOST_COLLEAGUES, releaseNumber } from '../../core/releases';
import { tellNotices } from '../notices/tell';
import { colleaguesOf } from '../releases/colleagues';
import { mainPass, shareOf } from '../releases/recipients';
import { tellAnswers } from '../trail/following-passes';
import { answering } from './answering';

/** Most remarks on one document, and most files that come with its verdict. */
const MOST_PLACED = 300;
export const MOST_MARKED_FILES = 10;

export const placeRemark = does(contract.placeRemark, {
	async run({ tx, pass: held, release, now, newId }, { document, page, x, y, text }) {
		const { passId } = await answering(tx, held, release, document);
		const [last] = await tx
			.select({ number: max(verdictRemark.number), placed: count() })
			.from(verdictRemark)
			.where(and(eq(verdictRemark.passId, passId), eq(verdictRemark.documentId, document)));
		if (last!.placed >= MOST_PLACED)
			throw new Problem(
				'too-many',
				`A document takes ${MOST_PLACED} remarks at most. Send a marked-up file.`
			);
		const id = newId();
		const number = (last!.number ?? 0) + 1;
		await tx
			.insert(verdictRemark)
			.values({ id, passId, documentId: document, number, page, x, y, text, createdAt: now });
		return { id, number };
	}
});

export const takeBackRemark = does(contract.takeBackRemark, {
	async run({ tx, pass: held, release }, input) {
		const mine = and(eq(verdictRemark.id, input.remark), eq(verdictRemark.passId, mainPass(held.id)));
		const [row] = await tx.select().from(verdictRemark).where(mine);
		if (!row) throw new Problem('not-found', 'There is no such remark of yours.');
		await answering(tx, held, release, row.documentId);
		await tx.delete(verdictRemark).where(mine);
		return {};
	}
});

export const addMarkedFile = does(contract.addMarkedFile, {
	async run({ tx, pass: held, release, now, newId }, { document, upload }) {
		const { passId } = await answering(tx, held, release, document);
		const [file] = await ownUploads(tx, { passId: held.id }, [upload], now);
		const sent = await tx
			.select({ hash: verdictFile.hash })
			.from(verdictFile)
			.where(and(eq(verdictFile.passId, passId), eq(verdictFile.documentId, document)));
		if (sent.some((one) => one.hash === file!.hash))
			throw new Problem('conflict', `${file!.fileName} is there already, with the very same bytes.`);
		if (sent.length >= MOST_MARKED_FILES)
			throw new Problem('too-many', `A verdict takes ${MOST_MARKED_FILES} files at most.`);
		const id = newId();
		const { hash, fileName } = file!;
		await tx.insert(verdictFile).values({ id, passId, documentId: document, hash, fileName, createdAt: now });
		return { id };
	}
});

export const takeBackFile = does(contract.takeBackFile, {
	async run({ tx, pass: held, release }, input) {
		const mine = and(eq(verdictFile.id, input.file), eq(verdictFile.passId, mainPass(held.id)));
		const [row] = await tx.select().from(verdictFile).where(mine);
		if (!row) throw new Problem('not-found', 'There is no such file of yours.');
		await answering(tx, held, release, row.documentId);
		await tx.delete(verdictFile).where(mine);
		return {};
	}
});

export const askForColleague = does(contract.askForColleague, {
	async run(context, { name, email, instead, words }) {
		const { tx, pass: held, release, now, newId, tell } = context;
		const share = await shareOf(tx, held.id);
		const [main] = await tx.select().from(pass).where(eq(pass.id, share.passId)).for('update');
		const known = await colleaguesOf(tx, [share.passId]);
		if (
			email === main!.holderEmail?.toLowerCase() ||
			known.some((one) => one.email === email && one.state !== 'refused')
		)
			throw new Problem('conflict', `${email} answers this release already, or is asked for.`, {
				field: 'email'
			});
		if (known.length >= MOST_COLLEAGUES)
			throw new Problem('too-many', `You can ask for ${MOST_COLLEAGUES} colleagues at most.`);
		const id = newId();
		await tx.insert(colleague).values({
			id,
			passId: share.passId,
			name,
			email,
			instead,
			words,
			askedBy: held.holderName,
			createdAt: now
		});
		await tellAnswers(tx, share.passId);
		await tellNotices(context, {
			kind: 'release-answered',
			people: [release.builtBy],
			releaseId: release.id,
			sentence: `${held.holderName} asks that ${name} answers release ${releaseNumber(release.number)}, “${release.title}”, ${instead ? 'in their stead' : 'along with them'}. Let them in, or refuse it.`,
			way: `releases/${release.number}`
		});
		tell({
			kind: 'colleague.asked',
			releaseId: release.id,
			details: { number: release.number, name, email, of: main!.holderName, instead }
		});
		return { id };
	}
});
