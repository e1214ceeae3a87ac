import { isDeepStrictEqual } from 'node:util';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { levelLabel, rank, LEVELS, type Level } from '../../core/access/levels';
import { releaseNumber, suitabilityText, USUAL_RHYTHM, USUAL_SUITABILITY } from '../../core/releases';
import { USUAL_PUBLISHING } from '../../core/documents/state';
import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../../core/revisions/revisions';
import { stagesOf } from '../../core/register/stages';
import { dayOf, dayWords, plusDays } from '../../core/time/days';
import { daysLater } from '../../core/time/spans';
import { calendarOf, restOn, weekdayOf } from '../../core/time/working-days';
import { plural } from '../../core/words/sentences';
import type { Querier } from '../platform/db';
import { member, person, type project, type ProjectSettings } from '../platform/db/schema';
import { remindersUnder } from '../releases/reminders';

type Here = typeof project.$inferSelect;
type Changed = Partial<ProjectSettings>;
/** What comes of one setting that changes. */
type Effect<K extends keyof ProjectSettings> = (
	db: Querier,
	here: Here,
	to: NonNullable<ProjectSettings[K]> | ProjectSettings[K],
	now: Date
) => Promise<string[]>;

/** Most names that are told one by one. */
const NAMED = 5;
const named = (names: readonly string[]) =>
	names.slice(0, NAMED).join(', ') + (names.length > NAMED ? ` and ${names.length - NAMED} more` : '');

async function countOf(db: Querier, query: ReturnType<typeof sql>): Promise<number> {
	const [row] = await db.execute<{ n: number }>(query);
	return row!.n;
}

/** Levels above one, as a list for a query. */
const above = (level: Level | null) => {
	const over = LEVELS.filter((one) => level === null || rank(one) > rank(level));
	return sql.join(
		over.map((one) => sql`${one}`),
		sql`, `
	);
};

/** How many people outside, and open passes for taking, hold more than a level. */
async function beyond(db: Querier, here: Here, level: Level | null) {
	if (level === 'manage') return { people: 0, passes: 0 };
	const people = await countOf(
		db,
		sql`select count(distinct m.person_id)::int as n
			from member m
			join access_grant g on g.level in (${above(level)}) and (
				(g.subject_kind = 'person' and g.subject_id = m.person_id)
				or (g.subject_kind = 'group' and g.subject_id in (select group_id from group_member where person_id = m.person_id)))
			join place p on p.id = g.place_id and p.project_id = m.project_id
			where m.project_id = ${here.id} and m.outside and m.left_at is null`
	);
	const taking = level === null || rank(level) < rank('download');
	const passes = taking
		? await countOf(
				db,
				sql`select count(*)::int as n from pass where project_id = ${here.id} and place_id is not null
					and withdrawn_at is null and ends_at > now() and (may_download or ${level === null})`
			)
		: 0;
	return { people, passes };
}

/** Which purposes came to a list and which left it, in words. */
function purposesChanged(before: readonly Purpose[], after: readonly Purpose[]) {
	const words = (list: readonly Purpose[]) => list.map((one) => `“${PURPOSE_LABEL[one]}”`).join(', ');
	return {
		more: words(after.filter((one) => !before.includes(one))),
		less: words(before.filter((one) => !after.includes(one)))
	};
}

const EFFECTS: { [K in keyof ProjectSettings]?: Effect<K> } = {
	async outsideLevel(db, here, to) {
		const [was, is] = [
			await beyond(db, here, here.settings.outsideLevel),
			await beyond(db, here, to ?? null)
		];
		const level = to ? levelLabel(to) : 'nothing';
		const more = is.people - was.people;
		const says: string[] = [];
		if (more > 0)
			says.push(
				`${plural(more, 'person', 'people')} outside ${more === 1 ? 'goes' : 'go'} down to ${level} at once.`
			);
		if (more < 0)
			says.push(
				`${plural(-more, 'person', 'people')} outside ${more === -1 ? 'gets' : 'get'} back what was given to them beyond it.`
			);
		if (is.passes > was.passes)
			says.push(
				`${plural(is.passes - was.passes, 'open pass', 'open passes')} ${to ? 'only show' : 'show nothing'} from then on.`
			);
		return says.length ? says : ['Nobody outside holds more or less by it today.'];
	},

	async manageNeedsTwoStep(db, here, to) {
		const rows = await db.execute<{ name: string }>(sql`
			select distinct p.name from member m join person p on p.id = m.person_id
			where m.project_id = ${here.id} and m.left_at is null and not coalesce(p.two_factor_enabled, false) and (
				m.controller
				or exists (select 1 from department_member d join department o on o.id = d.department_id
					where o.project_id = m.project_id and d.person_id = m.person_id and d.lead)
				or exists (select 1 from access_grant g join place q on q.id = g.place_id
					where q.project_id = m.project_id and g.level = 'manage' and g.subject_kind = 'person' and g.subject_id = m.person_id))
			order by p.name`);
		const names = rows.map((row) => row.name);
		if (!names.length) return ['Everybody with Manage has set up two-step sign-in.'];
		return [
			to
				? `${names.length === 1 ? 'This person goes' : `These ${names.length} go`} up to Organise only, until they set it up: ${named(names)}.`
				: `${plural(names.length, 'person', 'people')} without it ${names.length === 1 ? 'has' : 'have'} Manage again: ${named(names)}.`
		];
	},

	async issueNeeds(db, here, to) {
		if (to !== 'code') return ['Whoever issues a release types its number, as a second look.'];
		const rows = await db
			.select({ name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(
				and(
					eq(member.projectId, here.id),
					eq(member.controller, true),
					isNull(member.leftAt),
					eq(person.twoFactorEnabled, false)
				)
			)
			.orderBy(asc(person.name));
		const names = rows.map((row) => row.name);
		return names.length
			? [
					`${plural(names.length, 'controller')} ${names.length === 1 ? 'issues' : 'issue'} nothing until two-step sign-in is set up: ${named(names)}.`
				]
			: ['All controllers have set up two-step sign-in.'];
	},

	async answersDraw(db, here, to) {
		const open = await countOf(
			db,
			sql`select count(distinct m.pass_id)::int as n from verdict_mark m
				join pass p on p.id = m.pass_id
				left join verdict v on v.pass_id = m.pass_id and v.document_id = m.document_id
				where p.project_id = ${here.id} and v.signed_at is null`
		);
		if (to)
			return ['Whoever answers a release draws on its sheets, beside placing remarks and sending files.'];
		return [
			'Whoever answers a release places remarks and sends marked-up files; what was signed stays.',
			...(open
				? [
						`${plural(open, 'recipient')} ${open === 1 ? 'has' : 'have'} drawn something and not signed yet; it stays, and goes along when they sign.`
					]
				: [])
		];
	},

	async approveOwn(db, here, to) {
		const waiting = await countOf(
			db,
			sql`select count(*)::int as n from release where project_id = ${here.id} and state = 'in-review'`
		);
		const says = to
			? 'One person alone can then build, approve and issue a release.'
			: 'From then on, nobody decides on what they built, changed or asked for.';
		return [
			says,
			...(waiting ? [`${plural(waiting, 'release')} wait${waiting === 1 ? 's' : ''} for approval.`] : [])
		];
	},

	async lockLimitDays(db, here, to) {
		const n = await countOf(
			db,
			sql`select count(*)::int as n from lock l join document d on d.id = l.document_id
				where d.project_id = ${here.id} and l.ended_at is null and l.expected_end is null
				and l.taken_at < now() - make_interval(days => ${to}) and l.taken_at >= now() - make_interval(days => ${here.settings.lockLimitDays})`
		);
		return [
			n
				? `${plural(n, 'lock')} without an end of ${n === 1 ? 'its' : 'their'} own ${n === 1 ? 'is' : 'are'} stale at once; the holders are reminded.`
				: 'No lock of today becomes stale by it.'
		];
	},

	async retentionDays(db, here, to) {
		const past = (days: number) =>
			countOf(
				db,
				sql`select count(*)::int as n from removal r
					where r.project_id = ${here.id} and r.restored_at is null and r.removed_at < now() - make_interval(days => ${days})`
			);
		const [was, is] = [await past(here.settings.retentionDays), await past(to!)];
		if (is > was) return [`${plural(is - was, 'removal')} of today can be restored no longer.`];
		if (is < was) return [`${plural(was - is, 'removal')} can be restored again.`];
		return ['What is under Removed today stays restorable.'];
	},

	async maxFileBytes(db, here, to) {
		const n = await countOf(
			db,
			sql`select count(*)::int as n from version v join document d on d.id = v.document_id join content c on c.hash = v.hash
				where d.project_id = ${here.id} and c.size > ${to}`
		);
		return n
			? [
					`${plural(n, 'version')} of today ${n === 1 ? 'is' : 'are'} larger, and ${n === 1 ? 'stays' : 'stay'}.`
				]
			: [];
	},

	async ownDomains(db, here, to) {
		const old = here.settings.ownDomains;
		const of = async (domains: readonly string[], outside: boolean) =>
			domains.length
				? countOf(
						db,
						sql`select count(*)::int as n from member m join person p on p.id = m.person_id
							where m.project_id = ${here.id} and m.left_at is null and m.outside = ${outside}
							and split_part(p.email, '@', 2) in (${sql.join(
								domains.map((one) => sql`${one}`),
								sql`, `
							)})`
					)
				: 0;
		const joined = await of(
			to!.filter((one) => !old.includes(one)),
			true
		);
		const left = await of(
			old.filter((one) => !to!.includes(one)),
			false
		);
		return [
			...(joined
				? [
						`${plural(joined, 'person', 'people')} of it came from outside, and ${joined === 1 ? 'stays' : 'stay'} so until moved inside on the page People.`
					]
				: []),
			...(left
				? [
						`${plural(left, 'colleague')} of ${left === 1 ? 'an address' : 'addresses'} that ${left === 1 ? 'is' : 'are'} no longer own ${left === 1 ? 'stays a colleague' : 'stay colleagues'}; new ones come from outside.`
					]
				: [])
		];
	},

	async releasePurposes(db, here, to) {
		const { more, less } = purposesChanged(here.settings.releasePurposes, to!);
		return [
			...(more ? [`Nobody issues ${more} alone any more; it takes a release and a second person.`] : []),
			...(less ? [`Whoever works on a document can issue it ${less} alone.`] : [])
		];
	},

	async publishingPurposes(db, here, to) {
		const { more, less } = purposesChanged(here.settings.publishingPurposes ?? USUAL_PUBLISHING, to!);
		return [
			...(more ? [`From the next issue on, ${more} makes documents Published.`] : []),
			...(less ? [`From the next issue on, ${less} makes documents Shared.`] : [])
		];
	},

	async suitability(_db, here, to) {
		const before = here.settings.suitability ?? USUAL_SUITABILITY;
		return PURPOSES.filter((purpose) => !isDeepStrictEqual(before[purpose], to![purpose])).map(
			(purpose) =>
				`From the next issue on, “${PURPOSE_LABEL[purpose]}” reads ${suitabilityText(to![purpose]) || 'without a status'}; what is issued keeps what it was issued with.`
		);
	},

	async workCalendar(db, here, to, now) {
		const calendar = calendarOf({ ...here.settings, ...(to ? { workCalendar: to } : {}) });
		const before = calendarOf(here.settings);
		const rows = await db.execute<{ number: number; replyBy: string }>(sql`
			select distinct r.number, by.day as "replyBy" from release r
			left join release_recipient rr on rr.release_id = r.id and rr.expects = 'verdicts'
			cross join lateral (values (r.reply_by), (rr.reply_by)) by(day)
			where r.project_id = ${here.id} and by.day is not null and r.state in ('building', 'in-review', 'approved', 'issued')
			and by.day >= ${dayOf(now, here.timeZone)} order by r.number, by.day`);
		const hit = rows.filter((row) => restOn(row.replyBy, calendar) && !restOn(row.replyBy, before));
		const today = dayOf(now, here.timeZone);
		return hit.length
			? [
					`Replies are asked by a day off in ${plural(hit.length, 'release')}: ${named(hit.map((one) => `${releaseNumber(one.number)} (${dayWords(one.replyBy, today)})`))}. Their days stay as they are.`
				]
			: ['No reply is asked by one of the new days off.'];
	},

	async stages(db, here, to) {
		const kept = new Set(to!.map((one) => one.key));
		const says: string[] = [];
		for (const { key, name } of stagesOf(here.settings)) {
			if (kept.has(key)) continue;
			const n = await countOf(
				db,
				sql`select count(*)::int as n from deliverable_stage s join deliverable d on d.id = s.deliverable_id
					where d.project_id = ${here.id} and d.removed_at is null and s.stage = ${key}`
			);
			if (n)
				says.push(
					`“${name}” leaves the plans of ${plural(n, 'deliverable')}; its days come back if it does.`
				);
		}
		return says;
	},

	async registerReport(_, here, to, now) {
		if (!to?.weekday || !to.to.length) return ['The register goes to nobody by mail.'];
		const today = dayOf(now, here.timeZone);
		let first = plusDays(today, 1);
		while (weekdayOf(first) !== to.weekday) first = plusDays(first, 1);
		return [
			`The whole register goes to ${plural(to.to.length, 'address', 'addresses')} each week, whatever they may look at here; first on ${dayWords(first, today)}.`
		];
	},

	async reminders(db, here, to, now) {
		const [was, is] = await Promise.all(
			[here.settings.reminders ?? USUAL_RHYTHM, to!].map((rhythm) =>
				remindersUnder(db, here.id, rhythm, daysLater(now, 1))
			)
		);
		const [more, less] = [is!.filter((n) => !was!.includes(n)), was!.filter((n) => !is!.includes(n))];
		return [
			...(more.length
				? [`Tomorrow morning the recipients of ${named(more.map(releaseNumber))} are reminded by it.`]
				: []),
			...(less.length
				? [`The recipients of ${named(less.map(releaseNumber))} are not reminded tomorrow.`]
				: []),
			...(more.length + less.length ? [] : ['Tomorrow’s reminders stay the same.'])
		];
	}
};

/**
 * What comes of settings that change, in sentences with figures of today; shown before they are changed.
 * @param here the project as it stands
 */
export async function effectsOf(db: Querier, here: Here, changed: Changed, now: Date): Promise<string[]> {
	const says: string[] = [];
	for (const key of Object.keys(changed) as (keyof ProjectSettings)[]) {
		const effect = EFFECTS[key] as Effect<typeof key> | undefined;
		if (effect) says.push(...(await effect(db, here, changed[key], now)));
	}
	return says;
}
