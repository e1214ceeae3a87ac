import { and, asc, eq, gte } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/stand-ins';
import { dayOf } from '../../core/time/days';
import { person, standIn } from '../platform/db/schema';
import { answers } from '../platform/runner/act';

export const standIns = answers(contract.standIns, {
	async run({ db, project: here, person: me, reach, now }) {
		if (reach.subject.outside) return { rows: [] };
		const other = alias(person, 'other');
		const rows = await db
			.select({
				id: standIn.id,
				away: { id: person.id, name: person.name },
				standIn: { id: other.id, name: other.name },
				from: standIn.fromDay,
				until: standIn.untilDay
			})
			.from(standIn)
			.innerJoin(person, eq(person.id, standIn.personId))
			.innerJoin(other, eq(other.id, standIn.standInId))
			.where(and(eq(standIn.projectId, here.id), gte(standIn.untilDay, dayOf(now, here.timeZone))))
			.orderBy(asc(standIn.fromDay), asc(person.name));
		return {
			rows: rows.map((row) => ({ ...row, mayEnd: reach.subject.controller || row.away.id === me.id }))
		};
	}
});
