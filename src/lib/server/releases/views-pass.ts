import { eq } from 'drizzle-orm';
import * as contract from '../../contract/release-views';
import { replyDayOf, suitabilityOf } from '../../core/releases';
import { mayDraw } from '../../core/releases/drawn';
import type { Querier } from '../platform/db';
import { pass, person, verdict } from '../platform/db/schema';
import { answers, type Project, type Release } from '../platform/runner/act';
import type { Services } from '../platform/services';
import { alongBy } from './answered';
import { colleaguesOf } from './colleagues';
import { addressOf } from '../passes/acts-given';
import { gotBy, sentBefore, sentSince } from './got';
import { shareOf } from './recipients';
import { laterRevisions } from './revisions';

export const passView = answers(contract.passView, {
	async run({ db, project, pass: held, release: about, services, now }) {
		return describePass(services, db, project, held, about, now);
	}
});

async function describePass(
	services: Services,
	db: Querier,
	project: Project,
	held: typeof pass.$inferSelect,
	about: Release,
	now: Date
) {
	const [issuer] = await db.select({ name: person.name }).from(person).where(eq(person.id, about.issuedBy!));
	const { share, items: mine } = await gotBy(db, held, about);
	const [main] = await db.select({ receivedAt: pass.receivedAt }).from(pass).where(eq(pass.id, share.passId));
	const others = await colleaguesOf(db, [share.passId]);
	const saved = await db.select().from(verdict).where(eq(verdict.passId, share.passId));
	const answers = new Map(saved.map((row) => [row.documentId, row]));
	const later = await laterRevisions(db, about.id);
	const before = await sentBefore(db, held, about);
	const since = await sentSince(db, held, about, now);
	/** The way to a later revision that they got; by a link that opens for anybody nobody is led on to another. */
	const gotSince = (documentId: string) => {
		const got = since.get(documentId);
		if (!got) return null;
		const link = share.asks === 'nothing' ? null : addressOf(services.config, got);
		return { release: got.release, label: got.label, link };
	};
	const along = await alongBy(db, [share.passId]);
	const items = mine.map((row) => {
		const given = answers.get(row.documentId);
		const had = before.get(row.documentId) ?? null;
		const { placed, drawn, files } = along(share.passId, row.documentId);
		return {
			documentId: row.documentId,
			number: row.number,
			title: row.title,
			heading: row.heading,
			label: row.chosenLabel,
			size: row.sentSize!,
			mediaType: row.sentType!,
			hash: row.sentHash!,
			later: later.get(row.documentId) ?? null,
			since: gotSince(row.documentId),
			before: had && { label: had.label, release: had.release, mediaType: had.mediaType },
			code: given?.code ?? null,
			remark: given?.remark ?? '',
			placed: placed.map(({ id, number, page, x, y, text }) => ({ id, number, page, x, y, text })),
			drawn: drawn.length,
			files: files.map(({ id, fileName, size }) => ({ id, fileName, size })),
			signed: given?.signedAt ? { at: given.signedAt.toISOString(), name: given.signedName! } : null
		};
	});
	return {
		project: { code: project.code, name: project.name, client: project.client, timeZone: project.timeZone },
		holder: held.holderName,
		expects: share.expects,
		mayDraw: mayDraw(project.settings),
		endsAt: held.endsAt.toISOString(),
		receivedAt: main!.receivedAt?.toISOString() ?? null,
		colleagues: others.map(({ name, instead, state }) => ({ name, instead, state })),
		release: {
			number: about.number,
			title: about.title,
			purpose: about.purpose,
			suitability: share.manifest?.suitability ?? suitabilityOf(project.settings, about.purpose),
			issuedAt: about.issuedAt!.toISOString(),
			issuedBy: issuer!.name,
			replyBy: replyDayOf(about, share),
			words: about.words,
			superseded: about.state === 'superseded'
		},
		items,
		demo: services.config.demo
	};
}

export const passCoverNote = answers(contract.passCoverNote, {
	async run({ db, pass: held, release: about }) {
		return { hash: (await shareOf(db, held.id)).coverNoteHash!, number: about.number };
	}
});
