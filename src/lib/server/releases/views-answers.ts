import { and, eq, isNotNull } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/release-views';
import { Problem } from '../../core/acts/problem';
import { groupedBy } from '../../core/lists/group';
import { drawnWords, markOf } from '../../core/releases/drawn';
import type { Querier } from '../platform/db';
import { department, person, remark } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { answersTo } from '../remarks/answers';
import { alongBy } from './answered';
import { signedMarks } from './drawn';
import { releaseItems } from './checks';
import { recipientsOf, signedVerdicts, verdictsOn } from './recipients';
import { namesOf } from './route';

/** The remarks that answers to a release became, with what was answered to each. */
async function remarksMade(db: Querier, releaseId: string) {
	const settler = alias(person, 'settler');
	const made = await db
		.select({ remark, department: department.name, settler: settler.name })
		.from(remark)
		.leftJoin(department, eq(department.id, remark.assignedDepartment))
		.leftJoin(settler, eq(settler.id, remark.settledBy))
		.where(and(eq(remark.releaseId, releaseId), isNotNull(remark.fromName)));
	const said = await answersTo(
		db,
		made.map((one) => one.remark.id)
	);
	return made.map(({ remark: one, ...row }) => ({
		id: one.id,
		documentId: one.documentId,
		from: one.fromName,
		about: {
			number: one.number,
			department: row.department ?? '',
			due: one.due,
			answers: (said.get(one.id) ?? []).map(({ byId: _, ...answer }) => answer),
			settled: one.settledAt && {
				by: row.settler!,
				at: one.settledAt.toISOString(),
				note: one.settledNote ?? ''
			}
		}
	}));
}

export const releaseMarks = answers(contract.releaseMarks, {
	async run({ db, release: about }, { document }) {
		const rows = await signedMarks(db, about.id, document);
		const answers = groupedBy(rows, (row) => row.mark.passId);
		return {
			answers: [...answers.values()].map((drawn, i) => {
				const { name, company } = drawn[0]!;
				const layer = String(i + 1);
				return {
					name: name!,
					company,
					layer,
					marks: drawn.map(({ mark }) =>
						// Ids are given by browsers, and two may give the same.
						markOf(
							{ ...mark.drawn, id: `${layer}.${mark.id}` },
							{
								by: mark.passId,
								from: `${mark.drawnBy}, ${company}`,
								at: mark.createdAt.toISOString(),
								layer
							}
						)
					)
				};
			})
		};
	}
});

export const releaseAnswers = answers(contract.releaseAnswers, {
	async run({ db, project: here, release: about }) {
		if (!about.issuedAt) throw new Problem('not-found', 'Nobody answers a release before it is issued.');
		const [items, recipients, signed, made] = [
			await releaseItems(db, about.id),
			await recipientsOf(db, about.id),
			await signedVerdicts(db, about.id),
			await remarksMade(db, about.id)
		];
		const along = await alongBy(
			db,
			recipients.flatMap((one) => one.passId ?? [])
		);
		const names = await namesOf(
			db,
			items.flatMap((item) => item.outcomeBy ?? [])
		);
		return {
			project: { code: here.code, name: here.name, timeZone: here.timeZone },
			number: about.number,
			title: about.title,
			rows: items.flatMap((item) => {
				const document = {
					document: item.documentId,
					number: item.number,
					title: item.title,
					label: item.chosenLabel
				};
				const on = verdictsOn(recipients, signed, item.documentId);
				const onSheets = new Set(
					on.flatMap(({ of }) => along(of.passId, item.documentId).placed.map((one) => one.remarkId))
				);
				/** What the words of a verdict became; what was placed on a sheet became remarks of its own. */
				const remarkBy = (by: string, company: string) =>
					made.find(
						(one) =>
							one.documentId === item.documentId && one.from === `${by}, ${company}` && !onSheets.has(one.id)
					)?.about ?? null;
				const by = item.outcomeBy && names.get(item.outcomeBy);
				return [
					...on.flatMap(({ of, signed: one }) => {
						const given = {
							...document,
							by: one?.signedName ?? of.name,
							company: of.company,
							at: one?.signedAt?.toISOString() ?? null,
							code: one?.code ?? null,
							consolidated: false
						};
						// What is placed or drawn and not signed is nobody's to read but theirs who did.
						const { placed, drawn } = along(one ? of.passId : null, item.documentId);
						return [
							{
								...given,
								words: one?.remark ?? '',
								page: null,
								how: null,
								remark: one?.signedName ? remarkBy(one.signedName, of.company) : null
							},
							...placed.map(({ page, text, remarkId }) => ({
								...given,
								words: text,
								page,
								how: 'placed' as const,
								remark: made.find((m) => m.id === remarkId)?.about ?? null
							})),
							...drawnWords(drawn.map((mark) => mark.drawn)).map(({ page, text }) => ({
								...given,
								words: text,
								page,
								how: 'drawn' as const,
								remark: null
							}))
						];
					}),
					...(by
						? [
								{
									...document,
									by,
									company: here.name,
									at: item.outcomeAt!.toISOString(),
									code: item.outcome,
									words: item.outcomeReason!,
									page: null,
									how: null,
									consolidated: true,
									remark: remarkBy(by, here.name)
								}
							]
						: [])
				];
			})
		};
	}
});
