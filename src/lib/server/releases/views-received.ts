import { and, desc, eq, gt, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/received';
import { replyDayOf } from '../../core/releases';
import { addressOf } from '../passes/acts-given';
import type { Querier } from '../platform/db';
import { pass, person, release, releaseRecipient } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { GETS } from './recipients';

/** Of a pass, that of the recipient whose part of the release it opens: their own, or of whom they answer for. */
const MAIN = sql`coalesce(${pass.alongWith}, ${pass.id})`;

/** Condition for a share (`release_recipient`) of which something that was asked is still open. */
const WAITS = sql<boolean>`case ${releaseRecipient.expects}
	when 'information' then false
	when 'receipt' then (select m.received_at from pass m where m.id = ${MAIN}) is null
	else exists (select 1 from release_item i, release_recipient rr where rr.pass_id = ${MAIN} and ${GETS}
		and not exists (select 1 from verdict v
			where v.pass_id = ${MAIN} and v.document_id = i.document_id and v.signed_at is not null)) end`;

/** The shares of a person in releases of a project that still open for them: sent to their address, and not withdrawn. */
const theirs = (projectId: string, email: string, now: Date) =>
	and(
		eq(release.projectId, projectId),
		inArray(release.state, ['issued', 'superseded']),
		sql`lower(${pass.holderEmail}) = ${email.toLowerCase()}`,
		isNull(pass.withdrawnAt),
		isNotNull(pass.sealedSecret),
		gt(pass.endsAt, now)
	);

/** How many releases wait for an answer of somebody to whom they were sent. */
export async function receivedWaiting(
	db: Querier,
	projectId: string,
	email: string,
	now: Date
): Promise<number> {
	const [row] = await db
		.select({ n: sql<number>`count(*)::int` })
		.from(releaseRecipient)
		.innerJoin(release, eq(release.id, releaseRecipient.releaseId))
		.innerJoin(pass, eq(releaseRecipient.passId, MAIN))
		.where(and(theirs(projectId, email, now), WAITS));
	return row!.n;
}

export const received = answers(contract.received, {
	async run({ db, project, person: me, self, services, now }) {
		// What came to somebody is answered in their name: who looks as them is not shown the way in.
		if (self.id !== me.id) return { releases: [] };
		const rows = await db
			.select({
				about: release,
				share: releaseRecipient,
				pass,
				by: person.name,
				waits: WAITS,
				receivedAt: sql<string | null>`(select m.received_at from pass m where m.id = ${MAIN})`,
				documents: sql<number>`(select count(*)::int from release_item i, release_recipient rr
					where rr.pass_id = ${MAIN} and ${GETS})`,
				answered: sql<number>`(select count(*)::int from verdict v where v.pass_id = ${MAIN} and v.signed_at is not null)`
			})
			.from(releaseRecipient)
			.innerJoin(release, eq(release.id, releaseRecipient.releaseId))
			.innerJoin(pass, eq(releaseRecipient.passId, MAIN))
			.innerJoin(person, eq(person.id, release.issuedBy))
			.where(theirs(project.id, me.email, now))
			.orderBy(desc(release.number))
			.limit(500);
		return {
			releases: rows.map(({ about, share, pass: held, ...row }) => ({
				...row,
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				issuedAt: about.issuedAt!.toISOString(),
				expects: share.expects,
				replyBy: replyDayOf(about, share),
				receivedAt: row.receivedAt && new Date(row.receivedAt).toISOString(),
				superseded: about.state === 'superseded',
				link: addressOf(services.config, held)
			}))
		};
	}
});
