import { and, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { releaseNumber } from '../../core/releases';
import { dayWordsOf } from '../../core/time/days';
import { encrypt } from '../platform/auth/encrypted';
import type { Tx } from '../platform/db';
import { colleague, member, pass, passPerson, person } from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import { does } from '../platform/runner/act';
import { recipientsOf } from './recipients';
import { ASKS } from './sending';
import { tellAnswers } from '../trail/following-passes';

/** Somebody whom a recipient of a release asks to bring in, held, and of whom. Raises `conflict` once it is answered. */
async function askedFor(tx: Tx, releaseId: string, id: string) {
	const [row] = await tx.select().from(colleague).where(eq(colleague.id, id)).for('update');
	const of = row && (await recipientsOf(tx, releaseId)).find((one) => one.passId === row.passId);
	if (!row || !of?.pass) throw new Problem('not-found', 'Nobody asks for such a colleague.');
	if (row.state !== 'asked')
		throw new Problem(
			'conflict',
			row.state === 'in' ? `${row.name} is let in already.` : `${row.name} was refused already.`
		);
	return { asked: row, of, held: of.pass };
}

/** What the trail tells of either answer. */
const told = (
	{ number }: { number: number },
	{ name, email, instead }: typeof colleague.$inferSelect,
	of: { name: string }
) => ({ number, name, email, of: of.name, instead });

export const letColleagueIn = does(contract.letColleagueIn, {
	async run(context, input) {
		const { tx, project: here, person: by, release: about, services, now, newId, mail, tell } = context;
		const { asked, of, held } = await askedFor(tx, about.id, input.colleague);
		if (held.withdrawnAt || held.endsAt <= now)
			throw new Problem(
				'conflict',
				`The pass of ${of.name} is not open any more; nobody answers along with it.`
			);
		if (of.asks === 'account') {
			const [account] = await tx
				.select({ id: person.id })
				.from(person)
				.innerJoin(
					member,
					and(eq(member.personId, person.id), eq(member.projectId, here.id), isNull(member.leftAt))
				)
				.where(sql`lower(${person.email}) = ${asked.email}`);
			if (!account)
				throw new Problem(
					'conflict',
					`${asked.name} has no account in this project, and this release asks for one. Let them into the project first.`
				);
		}
		const secret = newSecret();
		const passId = newId();
		await tx.insert(pass).values({
			id: passId,
			projectId: here.id,
			releaseId: about.id,
			alongWith: held.id,
			secretHash: secretHash(secret),
			sealedSecret: encrypt(services.config.secret, 'pass', secret),
			audience: held.audience,
			passwordHash: held.passwordHash,
			holderName: asked.name,
			holderEmail: asked.email,
			createdBy: by.id,
			endsAt: held.endsAt,
			createdAt: now
		});
		if (held.audience === 'named') await tx.insert(passPerson).values({ passId, email: asked.email });
		await tx
			.update(colleague)
			.set({ state: 'in', decidedBy: by.id, decidedAt: now, ownPassId: passId })
			.where(eq(colleague.id, asked.id));
		const link = `${services.config.origin}/pass/${secret}`;
		await mail(
			{ name: asked.name, address: asked.email },
			`${here.code} release ${releaseNumber(about.number)}: ${about.title}`,
			{
				says: [
					`${asked.askedBy} asks you to answer release ${releaseNumber(about.number)}, “${about.title}”, ${asked.instead ? `in the stead of ${of.name}` : `along with ${of.name}`}.`,
					...(asked.words ? asked.words.split(/\n+/) : []),
					'What each of you says is signed with your own name; what one has saved, the others see.'
				],
				facts: [['Open until', dayWordsOf(held.endsAt, here.timeZone, now)]],
				link: { word: 'Open the release', href: link },
				after: [of.asks === 'account' ? ASKS.account.trim() : `No account is needed.${ASKS[of.asks]}`]
			},
			[link]
		);
		await tellAnswers(tx, held.id);
		tell({
			kind: 'colleague.let-in',
			releaseId: about.id,
			details: { ...told(about, asked, of), pass: passId }
		});
		return {};
	}
});

export const refuseColleague = does(contract.refuseColleague, {
	async run({ tx, project: here, person: by, release: about, now, mail, tell }, input) {
		const { asked, of } = await askedFor(tx, about.id, input.colleague);
		await tx
			.update(colleague)
			.set({ state: 'refused', decidedBy: by.id, decidedAt: now, reason: input.reason })
			.where(eq(colleague.id, asked.id));
		await mail(
			{ name: of.name, address: of.email },
			`${here.code} release ${releaseNumber(about.number)}: ${asked.name} is not let in`,
			{
				says: [
					`You asked that ${asked.name} answers release ${releaseNumber(about.number)}, “${about.title}”. ${by.name} did not let them in: ${input.reason}`,
					'Your own link works as before.'
				],
				after: []
			},
			[]
		);
		await tellAnswers(tx, asked.passId);
		tell({
			kind: 'colleague.refused',
			releaseId: about.id,
			details: { ...told(about, asked, of), reason: input.reason }
		});
		return {};
	}
});
