import type { Letter } from '../../core/mail/letter';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { isColleague } from '../../core/people/colleagues';
import { nameKey } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { daysLater } from '../../core/time/spans';
import type { Querier, Tx } from '../platform/db';
import { account, group, groupMember, invitation, member, person } from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import type { Services } from '../platform/services';
import type { Project } from '../platform/runner/act';

/** How long a link for setting the first password works, in days. */
const INVITED_DAYS = 14;

/**
 * Makes the link by which somebody new sets their password; earlier ones that were not used end.
 * @param where the place they land at, and its project
 */
export async function inviteLink(
	tx: Tx,
	services: Services,
	personId: string,
	now: Date,
	where: { projectId: string; placeId: string | null }
): Promise<{ link: string; asks: Pick<Letter, 'link' | 'after'> }> {
	const secret = newSecret();
	await tx
		.update(invitation)
		.set({ usedAt: now })
		.where(
			and(eq(invitation.personId, personId), eq(invitation.purpose, 'invite'), isNull(invitation.usedAt))
		);
	await tx.insert(invitation).values({
		secretHash: secretHash(secret),
		personId,
		...where,
		expiresAt: daysLater(now, INVITED_DAYS)
	});
	const link = `${services.config.origin}/invited/${secret}`;
	return {
		link,
		asks: {
			link: { word: 'Set your password and come in', href: link },
			after: [`The link works for ${INVITED_DAYS} days.`]
		}
	};
}

/** Whether somebody has ever come in: without a password they were invited and no more. */
export async function cameIn(tx: Querier, personId: string): Promise<boolean> {
	const [row] = await tx.select({ id: account.id }).from(account).where(eq(account.userId, personId));
	return row !== undefined;
}

/** Whether a mail address is of the project's own organisation, so that its owner is a colleague (A12). */
export function isOwnAddress(project: Project, address: string): boolean {
	return isColleague(address, project.settings.ownDomains);
}

/** Puts a colleague into a project; to be put into departments later. */
export async function joinInside(
	tx: Tx,
	project: Project,
	personId: string,
	make: { now: Date }
): Promise<void> {
	await tx
		.insert(member)
		.values({ projectId: project.id, personId, seenUntil: make.now, createdAt: make.now })
		.onConflictDoUpdate({
			target: [member.projectId, member.personId],
			set: { leftAt: null, outside: false }
		});
}

/** The person with a mail address: found, or made without a password. Raises `conflict` for one who has left. */
export async function personByMail(
	tx: Tx,
	who: { name: string; email: string },
	make: { id: string; now: Date }
): Promise<{ id: string; name: string; fresh: boolean }> {
	const [known] = await tx.select().from(person).where(eq(person.email, who.email));
	if (known?.closedAt)
		throw new Problem(
			'conflict',
			`${known.name} (${who.email}) has left and was closed. Ask whoever looks after Cupboard.`
		);
	if (known) return { id: known.id, name: known.name, fresh: false };
	await tx.insert(person).values({ id: make.id, name: who.name, email: who.email, createdAt: make.now });
	return { id: make.id, name: who.name, fresh: true };
}

/**
 * Puts somebody outside into a project, with the company of others from the same mail domain, or one called after it.
 * @returns the company's name
 */
export async function joinOutside(
	tx: Tx,
	project: Project,
	who: { personId: string; email: string; company?: string },
	make: { newId: () => string; now: Date }
): Promise<string> {
	await tx
		.insert(member)
		.values({
			projectId: project.id,
			personId: who.personId,
			outside: true,
			seenUntil: make.now,
			createdAt: make.now
		})
		.onConflictDoUpdate({
			target: [member.projectId, member.personId],
			set: { leftAt: null, outside: true }
		});
	const domain = who.email.split('@')[1]!;
	const [same] = who.company
		? []
		: await tx
				.select({ id: group.id, name: group.name })
				.from(group)
				.innerJoin(groupMember, eq(groupMember.groupId, group.id))
				.innerJoin(person, eq(person.id, groupMember.personId))
				.where(
					and(
						eq(group.projectId, project.id),
						eq(group.company, true),
						sql`split_part(${person.email}, '@', 2) = ${domain}`
					)
				)
				.limit(1);
	const company = same ?? (await companyNamed(tx, project, who.company ?? domain, make));
	await tx.insert(groupMember).values({ groupId: company.id, personId: who.personId }).onConflictDoNothing();
	return company.name;
}

async function companyNamed(
	tx: Tx,
	project: Project,
	name: string,
	make: { newId: () => string; now: Date }
): Promise<{ id: string; name: string }> {
	const key = nameKey(name);
	const [known] = await tx
		.select({ id: group.id, name: group.name, company: group.company })
		.from(group)
		.where(and(eq(group.projectId, project.id), eq(group.nameKey, key)));
	if (known && !known.company)
		throw new Problem(
			'conflict',
			`${known.name} is a group of this project already; a company needs another name.`
		);
	if (known) return known;
	const id = make.newId();
	await tx
		.insert(group)
		.values({ id, projectId: project.id, name, nameKey: key, company: true, createdAt: make.now });
	return { id, name };
}

/** Whether somebody is in the project now. */
export async function isMember(tx: Tx, projectId: string, personId: string): Promise<boolean> {
	const rows = await tx
		.select({ id: member.personId })
		.from(member)
		.where(and(eq(member.projectId, projectId), eq(member.personId, personId), isNull(member.leftAt)));
	return rows.length > 0;
}
