import { eq, sql } from 'drizzle-orm';
import { askApproval, approveRelease } from '../../src/lib/server/acts/releases/approval';
import { buildRelease } from '../../src/lib/server/acts/releases/build';
import { document, version } from '../../src/lib/server/db/schema';
import { type Stage, type Doc, HOUR } from './stage';

export async function build(
	stage: Stage,
	title: string,
	purpose: string,
	docs: Doc[],
	replyBy: string | null,
	approver: string
): Promise<{ id: string }> {
	const { db } = stage.services.database;
	const [to] = await db.execute<{ id: string }>(
		sql`select id from recipient where email = 'maren@harbourtrust.example'`
	);
	return stage.act('Ines Maddock', buildRelease, {
		project: stage.project,
		title,
		purpose,
		recipient: to!.id,
		approver: stage.people.get(approver)!.person.id,
		replyBy,
		documents: docs.map((d) => d.id)
	});
}

export async function buildAndApprove(
	stage: Stage,
	title: string,
	purpose: string,
	docs: Doc[],
	replyBy: string | null
): Promise<{ id: string }> {
	const about = await build(stage, title, purpose, docs, replyBy, 'Halla Brandt');
	await stage.act('Ines Maddock', askApproval, { release: about.id }, stage.clock + 20 * 60_000);
	await stage.act('Halla Brandt', approveRelease, { release: about.id }, stage.clock + HOUR);
	return about;
}

export async function refreshLabels(stage: Stage, docs: Doc[]): Promise<void> {
	const rows = await stage.services.database.db
		.select({ id: document.id, label: version.label })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId));
	for (const doc of docs) doc.label = rows.find((row) => row.id === doc.id)!.label;
}
