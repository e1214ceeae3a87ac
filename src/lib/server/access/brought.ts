import { eq, inArray } from 'drizzle-orm';
import { levelLabel, type Level } from '../../core/access/levels';
import { settleBrought } from '../../core/access/brought';
import type { AccessModel, Grant } from '../../core/access/model';
import { loadModel } from './model';
import { document, grant, place } from '../platform/db/schema';
import { foldScope } from './scopes';
import type { Acting, ContextOf } from '../platform/runner/act';
import { placeName, subjectName } from './called';

type InProject = Pick<ContextOf['project'] & Acting, 'tx' | 'project' | 'tell'>;

/**
 * Writes down what became of grants that hung on others between two states of access (A8), with an event each, and
 * gives how many people lost theirs. What the act itself did to grants is not among it.
 */
export async function followBrought(
	context: InProject,
	before: AccessModel,
	after: AccessModel,
	own: ReadonlySet<string> = new Set()
): Promise<void> {
	const { tx } = context;
	const now = new Map([...after.grants.values()].flat().map((g) => [g.id, g]));
	const hanging = [...before.grants.values()].flat().filter((g) => g.underId !== null && !own.has(g.id));
	const ended = hanging.filter((g) => !now.has(g.id));
	for (const one of ended) await tellOf(context, one, { kind: 'access.ended', people: 1, broughtIn: true });
	if (ended.length)
		await tx.delete(grant).where(
			inArray(
				grant.id,
				ended.map((g) => g.id)
			)
		);
	for (const one of hanging) {
		const next = now.get(one.id);
		if (!next || (next.level === one.level && next.endsAt === one.endsAt)) continue;
		await tx
			.update(grant)
			.set({ level: next.level, endsAt: next.endsAt === null ? null : new Date(next.endsAt) })
			.where(eq(grant.id, one.id));
		const word = (level: Level | null) => (level ? levelLabel(level) : 'Barred');
		await tellOf(context, one, { kind: 'access.sunk', level: word(next.level), before: word(one.level) });
	}
	for (const placeId of new Set(ended.map((g) => g.placeId))) {
		const [row] = await tx.select().from(place).where(eq(place.id, placeId));
		await foldScope(tx, row!);
	}
}

/** After people joined or left departments, groups or the project: ends what hung on their being there (A8). */
export async function keepBrought(context: InProject): Promise<void> {
	const model = await loadModel(context.tx, context.project.id);
	await followBrought(context, model, settleBrought(model).model);
}

async function tellOf(
	{ tx, project, tell }: InProject,
	g: Grant,
	ended:
		| { kind: 'access.ended'; people: number; broughtIn: true }
		| { kind: 'access.sunk'; level: string; before: string }
): Promise<void> {
	const [at] = await tx.select().from(place).where(eq(place.id, g.placeId));
	const [doc] = await tx.select({ id: document.id }).from(document).where(eq(document.id, g.placeId));
	const where = { placeId: g.placeId, documentId: doc?.id ?? null };
	const what = {
		place: await placeName(tx, at!),
		who: (await subjectName(tx, project, g)) ?? 'somebody'
	};
	if (ended.kind === 'access.sunk') {
		const { kind, ...levels } = ended;
		tell({ ...where, kind, details: { ...what, ...levels } });
	} else {
		const { kind, ...rest } = ended;
		tell({ ...where, kind, details: { ...what, level: g.level ? levelLabel(g.level) : 'Barred', ...rest } });
	}
}
