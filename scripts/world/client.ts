import { oneStep, type Step } from '../../src/lib/core/releases/route';
import { eq } from 'drizzle-orm';
import { askApproval, approveRelease } from '../../src/lib/server/releases/acts-approval';
import { acceptChecks } from '../../src/lib/server/releases/acts';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { releaseView } from '../../src/lib/server/releases/views';
import { document, recipient, version } from '../../src/lib/server/platform/db/schema';
import type { CheckName, Expects, ProofAsked } from '../../src/lib/core/releases';
import { type Stage, type Doc, HOUR } from './stage';

export const MAREN = 'maren@harbourtrust.example';
export const KAJA = 'k.dorn@tarnsteel.example';
export const RUNA = 'runa.stave@planning.vennholm.example';

/** Somebody who gets a release: all of it, or some documents. */
export interface To {
	email: string;
	expects?: Expects;
	asks?: ProofAsked;
	replyBy?: string;
	documents?: Doc[];
}

export async function build(
	stage: Stage,
	title: string,
	purpose: string,
	docs: Doc[],
	replyBy: string | null,
	route: Step[],
	to: To[] = [{ email: MAREN }],
	words = ''
): Promise<{ id: string; number: number }> {
	const { db } = stage.services.database;
	const known = await db.select({ id: recipient.id, email: recipient.email }).from(recipient);
	return stage.act('Ines Maddock', buildRelease, {
		project: stage.project,
		title,
		purpose,
		recipients: to.map(({ email, documents, ...share }) => ({
			...share,
			recipient: known.find((one) => one.email === email)!.id,
			documents: documents?.map((doc) => doc.id) ?? null
		})),
		words,
		// What is built from says so on itself.
		stamped: purpose === 'construction',
		...(purpose === 'construction' ? { arrangement: { order: 'number', group: 'department' } } : {}),
		route,
		replyBy,
		documents: docs.map((d) => d.id)
	});
}

export async function buildAndApprove(
	stage: Stage,
	title: string,
	purpose: string,
	docs: Doc[],
	replyBy: string | null,
	to?: To[]
): Promise<{ id: string; number: number }> {
	const about = await build(
		stage,
		title,
		purpose,
		docs,
		replyBy,
		oneStep(stage.people.get('Halla Brandt')!.person.id),
		to
	);
	await acceptLooks(stage, about);
	await stage.act('Ines Maddock', askApproval, { release: about.id }, stage.clock + 20 * 60_000);
	const { digest } = await stage.read('Halla Brandt', releaseView, {
		project: stage.project,
		number: about.number
	});
	await stage.act('Halla Brandt', approveRelease, { release: about.id, digest }, stage.clock + HOUR);
	return about;
}

const REASONS: Partial<Record<CheckName, string>> = {
	settled: 'The remark is for the next stage and does not bear on this release.',
	opens: 'Opened by hand and found in order.',
	'issued-before': 'Nothing changed since; the client wants the whole set together.',
	revision: 'It went out for construction with an earlier set and stays as it is.',
	references: 'It follows with a later release; the client knows.',
	frozen: 'The freeze is for this very release.',
	'title-block': 'The sheet is redrawn with the next change; the number here holds.'
};

/** Says of everything the checks ask to look at why it goes out. */
export async function acceptLooks(stage: Stage, about: { id: string; number: number }): Promise<void> {
	const { items } = await stage.read('Ines Maddock', releaseView, {
		project: stage.project,
		number: about.number
	});
	const byCheck = new Map<CheckName, { document: string; check: CheckName }[]>();
	for (const item of items)
		for (const c of item.checks.filter((one) => one.result === 'look' && !one.accepted))
			byCheck.set(c.name, [...(byCheck.get(c.name) ?? []), { document: item.documentId, check: c.name }]);
	for (const [name, checks] of byCheck)
		await stage.act('Ines Maddock', acceptChecks, {
			release: about.id,
			checks,
			reason: REASONS[name] ?? 'Looked at, and right as it is.'
		});
}

export async function refreshLabels(stage: Stage, docs: Doc[]): Promise<void> {
	const rows = await stage.services.database.db
		.select({ id: document.id, label: version.label })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId));
	for (const doc of docs) doc.label = rows.find((row) => row.id === doc.id)!.label;
}
