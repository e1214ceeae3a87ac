import { and, asc, eq, gte, inArray, isNull, lte } from 'drizzle-orm';
import * as contract from '../../contract/stand-ins';
import { Problem } from '../../core/acts/problem';
import { dayOf, dayWords, plusDays } from '../../core/time/days';
import { tellNotices } from '../notices/tell';
import { member, person, standIn } from '../platform/db/schema';
import { does } from '../platform/runner/act';

export const nameStandIn = does(contract.nameStandIn, {
	async run(context, input) {
		const { tx, project: here, person: by, reach, now, newId, tell } = context;
		const away = input.away ?? by.id;
		const today = dayOf(now, here.timeZone);
		if (away !== by.id && !reach.subject.controller)
			throw new Problem('needs-level', 'Only a document controller names who decides for somebody else.');
		if (away === input.standIn)
			throw new Problem('invalid', 'Nobody stands in for themselves.', { field: 'standIn' });
		if (input.until < input.from || input.until < today)
			throw new Problem('invalid', 'The last day lies before the first, or is gone by.', { field: 'until' });
		if (input.until > plusDays(input.from, contract.MOST_AWAY_DAYS))
			throw new Problem('invalid', 'Somebody stands in for a year at most.', { field: 'until' });
		const people = await tx
			.select({ id: member.personId, name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(
				and(
					eq(member.projectId, here.id),
					inArray(member.personId, [away, input.standIn]),
					isNull(member.leftAt),
					isNull(member.blockedAt),
					eq(member.outside, false)
				)
			)
			.orderBy(asc(member.personId))
			.for('update', { of: member });
		const nameOf = (id: string) => people.find((one) => one.id === id)?.name;
		if (!nameOf(input.standIn) || !nameOf(away))
			throw new Problem('invalid', 'Choose a colleague in this project.', {
				field: nameOf(away) ? 'standIn' : 'away'
			});
		const [other] = await tx
			.select({ id: standIn.id })
			.from(standIn)
			.where(
				and(
					eq(standIn.projectId, here.id),
					eq(standIn.personId, away),
					lte(standIn.fromDay, input.until),
					gte(standIn.untilDay, input.from)
				)
			);
		if (other)
			throw new Problem(
				'conflict',
				`Somebody decides for ${nameOf(away)} in these days already. End that first.`
			);
		const id = newId();
		await tx.insert(standIn).values({
			id,
			projectId: here.id,
			personId: away,
			standInId: input.standIn,
			fromDay: input.from,
			untilDay: input.until,
			createdBy: by.id,
			createdAt: now
		});
		const names = { away: nameOf(away)!, standIn: nameOf(input.standIn)! };
		await tellNotices(context, {
			kind: 'approval-asked',
			people: [input.standIn, away].filter((one) => one !== by.id),
			sentence: `${names.standIn} decides on releases for ${names.away} from ${dayWords(input.from, today)} to ${dayWords(input.until, today)}.`,
			way: 'releases'
		});
		tell({ kind: 'stand-in.named', details: { ...names, from: input.from, until: input.until } });
		return { id };
	}
});

export const endStandIn = does(contract.endStandIn, {
	async run({ tx, project: here, person: by, reach, tell }, input) {
		const [ended] = await tx
			.delete(standIn)
			.where(and(eq(standIn.projectId, here.id), eq(standIn.id, input.entry)))
			.returning();
		if (!ended) throw new Problem('not-found', 'It has ended already.');
		if (ended.personId !== by.id && !reach.subject.controller)
			throw new Problem('needs-level', 'Who is away, or a document controller, ends this.');
		const names = await tx
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(inArray(person.id, [ended.personId, ended.standInId]));
		const nameOf = (id: string) => names.find((one) => one.id === id)!.name;
		tell({
			kind: 'stand-in.ended',
			details: { away: nameOf(ended.personId), standIn: nameOf(ended.standInId) }
		});
		return {};
	}
});
