import { and, count, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import * as contract from '../../contract/access';
import { line } from '../../contract/access';
import { mostBelow } from '../../core/access/brought';
import { allows, cap, levelLabel, type Level } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { dayWordsOf } from '../../core/time/days';
import { grantOf } from './model';
import { grant, group, member, place } from '../platform/db/schema';
import { holdTree } from './scopes';
import { does } from '../platform/runner/act';
import { visiblePlaces } from '../platform/runner/locate';
import {
	checkBring,
	checkOutside,
	endEntries,
	endOfDay,
	putEntries,
	type AtPlace,
	type Given
} from './entries';
import { placeName, subjectName } from './called';
import {
	cameIn,
	inviteLink,
	isMember,
	isOwnAddress,
	joinInside,
	joinOutside,
	personByMail
} from './newcomers';

/** What is put at a place, with the invitation of somebody who never came in. */
type Invited = Given & { invited?: Awaited<ReturnType<typeof inviteLink>>; email?: string };

/** Finds whom a line is about; makes an account for a mail address that nobody has yet. */
async function subjectOfLine(context: AtPlace, one: z.output<typeof line>): Promise<Invited> {
	const { tx, project, now, newId, services } = context;
	const given = {
		level: one.level,
		endsAt: endOfDay(one.until, project, now),
		exactly: one.exactly,
		bringCount: one.bringCount,
		bringLevel: one.bringLevel,
		underId: null
	};
	checkBring(one.level, one.bringCount, one.bringLevel);
	if ('kind' in one.subject) {
		const subject = { subjectKind: one.subject.kind, subjectId: one.subject.id };
		const called = await subjectName(tx, project, subject);
		if (!called || (one.subject.kind === 'person' && !(await isMember(tx, project.id, one.subject.id))))
			throw new Problem('invalid', 'A person, department or group named is not in this project.');
		if (await isOutside(context, subject)) checkOutside(project, called, one.level);
		if (one.exactly && one.subject.kind !== 'person')
			throw new Problem('invalid', `Only a personal grant can be exactly so; ${called} is not one person.`);
		return { ...given, subject, subjectName: called };
	}
	const mail = one.subject.email;
	const who = await personByMail(
		tx,
		{ name: one.subject.name ?? mail.split('@')[0]!, email: mail },
		{ id: newId(), now }
	);
	const subject = { subjectKind: 'person' as const, subjectId: who.id };
	if (await isMember(tx, project.id, who.id)) {
		if (await isOutside(context, subject)) checkOutside(project, who.name, one.level);
	} else if (isOwnAddress(project, mail)) await joinInside(tx, project, who.id, { now });
	else {
		checkOutside(project, who.name, one.level);
		await joinOutside(
			tx,
			project,
			{ personId: who.id, email: mail, ...(one.subject.company ? { company: one.subject.company } : {}) },
			{ newId, now }
		);
	}
	const where = { projectId: project.id, placeId: context.place.id };
	const invited = (await cameIn(tx, who.id)) ? undefined : await inviteLink(tx, services, who.id, now, where);
	return { ...given, subject, subjectName: who.name, email: mail, ...(invited ? { invited } : {}) };
}

async function isOutside(
	{ tx, project }: Pick<AtPlace, 'tx' | 'project'>,
	subject: { subjectKind: string; subjectId: string }
): Promise<boolean> {
	if (subject.subjectKind === 'person') {
		const [row] = await tx
			.select({ outside: member.outside })
			.from(member)
			.where(and(eq(member.projectId, project.id), eq(member.personId, subject.subjectId)));
		return row?.outside ?? true;
	}
	if (subject.subjectKind !== 'group') return false;
	const [row] = await tx
		.select({ company: group.company })
		.from(group)
		.where(eq(group.id, subject.subjectId));
	return row?.company ?? false;
}

/**
 * Sends somebody who never came in the link to set a password, saying who lets them in, where, how far and until when.
 * To whom the place stays unseen it stays unnamed (A10).
 */
async function welcome(context: AtPlace, given: Invited): Promise<void> {
	if (!given.invited || given.level === null) return;
	const { tx, project, place: at, person: by, mail } = context;
	const until = given.endsAt ? `, until ${dayWordsOf(given.endsAt, project.timeZone, context.now)}` : '';
	const what =
		given.level === 'drop'
			? `${by.name} asks you to put files in for the project ${project.name}${until}.`
			: `${by.name} has let you into ${await placeName(tx, at)} in the project ${project.name}, with ${levelLabel(given.level)}${until}.`;
	await mail(
		{ name: given.subjectName, address: given.email! },
		`${project.code}: you are invited to ${project.name}`,
		{ says: [what], ...given.invited.asks },
		[given.invited.link]
	);
}

export const letIn = does(contract.letIn, {
	async run(context, input) {
		await holdTree(context.tx, context.project.id);
		const given: Invited[] = [];
		for (const [i, one] of input.lines.entries()) {
			const found = await subjectOfLine(context, one).catch((error: unknown) => {
				if (error instanceof Problem && input.lines.length > 1)
					throw new Problem(error.code, `Line ${i + 1}: ${error.sentence} Nobody was let in.`, {
						...error.facts,
						line: i + 1
					});
				throw error;
			});
			const twice = given.find(
				(g) =>
					g.subject.subjectId === found.subject.subjectId &&
					g.subject.subjectKind === found.subject.subjectKind
			);
			if (twice)
				throw new Problem('invalid', `${found.subjectName} is named twice. Nobody was let in.`, {
					line: i + 1
				});
			given.push(found);
		}
		const { reached, grants } = await putEntries(context, given, input.note);
		for (const one of given) await welcome(context, one);
		const fresh = given.filter((g) => g.invited).length;
		return { lines: given.length, reached: reached.length, fresh, grants };
	}
});

/** The grant of an input, at the place of the act. Raises `conflict` when it ended a moment ago. */
async function grantHere(context: Pick<AtPlace, 'tx' | 'place'>, grantId: string) {
	const [row] = await context.tx
		.select()
		.from(grant)
		.where(and(eq(grant.id, grantId), eq(grant.placeId, context.place.id)))
		.for('update');
	if (!row) throw new Problem('conflict', 'This grant has ended already, or stands at another place.');
	return row;
}

export const changeAccess = does(contract.changeAccess, {
	async run(context, input) {
		const { tx, project, now } = context;
		await holdTree(tx, project.id);
		const row = await grantHere(context, input.grant);
		// What is not named stays as it is.
		const next = {
			level: input.level === undefined ? row.level : input.level,
			exactly: input.exactly ?? row.exactly,
			bringCount: input.bringCount ?? row.bringCount,
			bringLevel: input.bringLevel === undefined ? row.bringLevel : input.bringLevel
		};
		const subject = { subjectKind: row.subjectKind, subjectId: row.subjectId };
		const called = (await subjectName(tx, project, subject)) ?? 'somebody';
		if (await isOutside(context, subject)) checkOutside(project, called, next.level);
		if (next.exactly && row.subjectKind !== 'person')
			throw new Problem('invalid', `Only a personal grant can be exactly so; ${called} is not one person.`);
		if (next.level === null) Object.assign(next, { bringCount: 0, bringLevel: null, exactly: false });
		else if (input.level !== undefined && next.bringLevel && input.bringLevel === undefined)
			next.bringLevel = cap(next.bringLevel, next.level);
		checkBring(next.level, next.bringCount, next.bringLevel);
		let endsAt = input.until === undefined ? row.endsAt : endOfDay(input.until, project, now);
		if (row.underId) {
			const [above] = await tx.select().from(grant).where(eq(grant.id, row.underId));
			const most = mostBelow(above!);
			if (next.level !== null && !allows(most, next.level))
				throw new Problem(
					'invalid',
					`${called} was brought in; the ceiling for that is ${levelLabel(most ?? 'view')}.`
				);
			endsAt = earlier(endsAt, above!.endsAt);
		}
		const { changed } = await putEntries(
			context,
			[{ subject, subjectName: called, ...next, endsAt, underId: row.underId }],
			''
		);
		return { changed: changed > 0 };
	}
});

function earlier(a: Date | null, b: Date | null): Date | null {
	if (!a) return b;
	return b && b < a ? b : a;
}

export const endAccess = does(contract.endAccess, {
	async run(context, input) {
		await holdTree(context.tx, context.project.id);
		const row = await grantHere(context, input.grant);
		if (!allows(context.level, 'manage') && !(row.underId && row.grantedBy === context.person.id))
			throw new Problem('needs-level', 'Ending this needs Manage here, or that you brought them in.', {
				needed: 'manage',
				held: context.level
			});
		await endEntries(context, context.place, [grantOf(row, null)]);
		return {};
	}
});

export const endSharing = does(contract.endSharing, {
	async run(context, input) {
		const { tx, project, person: by, reach } = context;
		await holdTree(tx, project.id);
		const rows = await tx
			.select({ grant, place })
			.from(grant)
			.innerJoin(place, eq(place.id, grant.placeId))
			.where(and(inArray(grant.id, [...new Set(input.grants)]), eq(place.projectId, project.id)));
		const visible = await visiblePlaces(
			tx,
			reach,
			rows.map((r) => r.place.id)
		);
		const mine = rows.filter(
			(r) =>
				visible.some((v) => v.id === r.place.id) &&
				(r.grant.grantedBy === by.id || allows(reach.level(r.place.scope), 'manage'))
		);
		if (mine.length !== new Set(input.grants).size)
			throw new Problem(
				'conflict',
				'One of these has ended already, or is not yours to end. Nothing was ended.'
			);
		for (const placeId of new Set(mine.map((r) => r.place.id))) {
			const here = mine.filter((r) => r.place.id === placeId);
			await endEntries(
				context,
				here[0]!.place,
				here.map((r) => grantOf(r.grant, null))
			);
		}
		return { ended: mine.length };
	}
});

export const bringIn = does(contract.bringIn, {
	async run(context, input) {
		const { tx, project, reach, now } = context;
		await holdTree(tx, project.id);
		const above = await grantHere(context, input.under);
		const { subject } = reach;
		const holds =
			(above.subjectKind === 'person' && above.subjectId === subject.personId) ||
			(above.subjectKind === 'department' && subject.departments.includes(above.subjectId)) ||
			(above.subjectKind === 'leads' && subject.leads.includes(above.subjectId)) ||
			(above.subjectKind === 'group' && subject.groups.includes(above.subjectId));
		if (!holds || !above.bringCount || !above.bringLevel || (above.endsAt && above.endsAt <= now))
			throw new Problem('needs-level', 'No grant of yours here lets you bring others in.');
		const [{ n } = { n: 0 }] = await tx.select({ n: count() }).from(grant).where(eq(grant.underId, above.id));
		if (n >= above.bringCount)
			throw new Problem(
				'conflict',
				`You may bring in ${above.bringCount}, and ${n} are in. End one of them first, or ask for more.`
			);
		const most = mostBelow(above)!;
		if (!allows(most, input.level))
			throw new Problem('invalid', `You may bring others in at ${levelLabel(most)} at most.`, {
				field: 'level'
			});
		const found = await subjectOfLine(context, {
			subject: 'person' in input.who ? { kind: 'person', id: input.who.person } : input.who,
			level: input.level,
			until: input.until,
			exactly: false,
			bringCount: 0,
			bringLevel: null
		});
		const [standing] = await tx
			.select({ level: grant.level })
			.from(grant)
			.where(
				and(
					eq(grant.placeId, context.place.id),
					eq(grant.subjectKind, 'person'),
					eq(grant.subjectId, found.subject.subjectId)
				)
			);
		if (standing)
			throw new Problem(
				'conflict',
				`${found.subjectName} ${standing.level === null ? 'is barred here' : `has ${levelLabel(standing.level as Level)} here already`}. Only somebody with Manage can change that.`
			);
		await putEntries(
			context,
			[{ ...found, endsAt: earlier(found.endsAt, above.endsAt), underId: above.id }],
			input.note
		);
		await welcome(context, found);
		return { left: above.bringCount - n - 1 };
	}
});
