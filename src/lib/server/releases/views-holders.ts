import { eq } from 'drizzle-orm';
import * as contract from '../../contract/holders';
import { stateOf } from '../../core/releases/holders';
import { releaseItem } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { holdersOf } from './holders';

export const holders = answers(contract.holders, {
	async run({ db, project }, input) {
		const all = await holdersOf(db, project.id);
		// What was only looked at on screen is told where one asks how it came about.
		const listed = all.documents.filter((one) => one.states.size);
		const among = input.release
			? await db
					.select({ id: releaseItem.documentId })
					.from(releaseItem)
					.where(eq(releaseItem.releaseId, input.release))
			: null;
		const held = among && new Set(among.map((row) => row.id));
		const chosen = listed.filter(
			(one) =>
				(!held || held.has(one.document)) &&
				(!input.department || one.departmentId === input.department) &&
				(input.only === 'all' || one.states.has(input.only))
		);
		const order = [...all.holders.keys()].filter((place) => all.holding.has(place));
		return {
			holders: order.map((place) => all.holders[place]!),
			rows: chosen.slice(input.skip, input.skip + input.limit).map((one) => ({
				document: one.document,
				number: one.number,
				title: one.title,
				now: one.now,
				issued: one.issued,
				held: order.flatMap((place) => {
					const held = one.held[place];
					return held
						? [{ holder: all.holders[place]!.key, label: held.label, state: stateOf(held, one.issuedSeq) }]
						: [];
				})
			})),
			total: chosen.length,
			old: listed.filter((one) => one.states.has('old')).length,
			unconfirmed: listed.filter((one) => one.states.has('unconfirmed')).length
		};
	}
});

export const holding = answers(contract.holding, {
	async run({ db, project }, input) {
		const { handings } = await holdersOf(db, project.id);
		return {
			rows: handings(input.document, input.holder.toLowerCase()).map(({ seq: _, ...one }) => one)
		};
	}
});
