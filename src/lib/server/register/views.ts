import { and, desc, eq, isNull } from 'drizzle-orm';
import * as contract from '../../contract/register';
import { Problem } from '../../core/acts/problem';
import {
	countsOf,
	EVERYTHING,
	groupOf,
	ordered,
	passing,
	type Grouping,
	type Line,
	type Seen
} from '../../core/register';
import { among } from '../platform/db';
import { deliverableChange, lock, person } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import type { Facts } from './facts';
import { NO_SUCH } from './lines';
import { mayForecast } from './may';
import { narrowingOf, visibleLines, type Here } from './seen';

/** Lines as they travel, with who has their documents in hand. */
async function rowsOf(context: Here, facts: Facts, lines: readonly Seen[]) {
	const documents = lines.flatMap(({ deliverable: { document } }) => (document ? [document.id] : []));
	const locks = documents.length
		? await context.db
				.select({ document: lock.documentId, name: person.name })
				.from(lock)
				.innerJoin(person, eq(person.id, lock.holderId))
				.where(and(among(lock.documentId, documents), isNull(lock.endedAt)))
		: [];
	const inHand = new Map(locks.map((one) => [one.document, one.name]));
	return lines.map(({ deliverable: one, at, status, view, missingAfter }) => {
		const { document, plan: _plan, missingAfter: _untold, ...rest } = one;
		return {
			...rest,
			status,
			document: document
				? {
						id: document.id,
						label: document.label,
						issued: document.issued,
						inHand: inHand.get(document.id) ?? null,
						reply: document.reply
					}
				: null,
			stages: [...at],
			slip: view?.slip ?? null,
			missingAfter: [...missingAfter],
			mayForecast: mayForecast(context, {
				departmentId: facts.departmentOf.get(one.id) ?? null,
				responsibleId: one.responsible?.id ?? null
			})
		};
	});
}

/** The first and the last day of everything that stands in some lines. */
function spanOf(lines: readonly Line[]) {
	let [from, to] = ['9999', ''];
	for (const { at } of lines)
		for (const { planned, actual, forecast } of at)
			for (const day of [planned, actual, forecast]) {
				if (day === null) continue;
				if (day < from) from = day;
				if (day > to) to = day;
			}
	return to === '' ? null : { from, to };
}

/** How many lines stand under each head. */
function groupsOf(lines: readonly Line[], by: Grouping) {
	const counts = new Map<string, number>();
	for (const line of lines) {
		const head = groupOf(line, by);
		counts.set(head, (counts.get(head) ?? 0) + 1);
	}
	return [...counts].map(([head, count]) => ({ head, count }));
}

/** What a list can be narrowed to. */
function offersOf(lines: readonly Line[]) {
	const [zones, types] = [new Set<string>(), new Set<string>()];
	const people = new Map<string, { id: string; name: string }>();
	for (const { deliverable: one } of lines) {
		zones.add(one.zone);
		types.add(one.type);
		if (one.responsible) people.set(one.responsible.id, one.responsible);
	}
	const sorted = (values: Set<string>) => [...values].filter(Boolean).sort();
	return {
		zones: sorted(zones),
		types: sorted(types),
		people: [...people.values()].sort((a, b) => a.name.localeCompare(b.name))
	};
}

export const register = answers(contract.register, {
	async run(context, input) {
		const stage = input.stage ?? null;
		const { facts, today, stages, told, lines } = await visibleLines(context, stage);
		const to = narrowingOf(input);
		// Figures count what is left before one of them is chosen.
		const { departments, zones, types, responsible, words } = to;
		const wide = { ...EVERYTHING, stage, departments, zones, types, responsible, words };
		const counted = lines.filter(passing(wide, today));
		const left = counted.filter(passing(to, today));
		const shown = ordered(left, input.order, input.down, input.group).slice(
			input.skip,
			input.skip + input.limit
		);
		const offered = offersOf(lines);
		return {
			stages: [...stages],
			counts: countsOf(counted, stage, today),
			tellsMissing: told,
			total: left.length,
			span: spanOf(left),
			rows: await rowsOf(context, facts, shown),
			groups: input.group === 'none' ? [] : groupsOf(left, input.group),
			...offered
		};
	}
});

export const deliverable = answers(contract.deliverable, {
	async run(context, input) {
		const { db } = context;
		const { facts, stages, lines } = await visibleLines(context, null);
		const line = lines.find(
			({ deliverable: one }) => one.id === input.deliverable || one.number === input.deliverable
		);
		if (!line) throw new Problem('not-found', NO_SUCH);
		const history = await db
			.select({ change: deliverableChange, by: person.name })
			.from(deliverableChange)
			.leftJoin(person, eq(person.id, deliverableChange.by))
			.where(eq(deliverableChange.deliverableId, line.deliverable.id))
			.orderBy(desc(deliverableChange.at))
			.limit(200);
		const [row] = await rowsOf(context, facts, [line]);
		return {
			...row!,
			names: Object.fromEntries(stages.map((one) => [one.key, one.name])),
			corrected: line.deliverable.plan.flatMap(({ stage, corrected }) =>
				corrected ? [{ stage, ...corrected }] : []
			),
			history: history.map(({ change, by }) => ({
				at: change.at.toISOString(),
				by,
				kind: change.kind,
				reason: change.reason,
				changes: change.changes
			}))
		};
	}
});
