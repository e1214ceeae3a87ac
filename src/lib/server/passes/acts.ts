import type { Letter } from '../../core/mail/letter';
import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import * as contract from '../../contract/passes';
import type { Audience } from '../../core/passes/passes';
import { allows, rank } from '../../core/access/levels';
import type { PassFacts } from '../../core/passes/may';
import { Problem } from '../../core/acts/problem';
import { dayWordsOf } from '../../core/time/days';
import { daysLater } from '../../core/time/spans';
import { idsOf, beneath, type Reach } from '../access/reach';
import type { Tx } from '../platform/db';
import { pass, passPerson, place, release, version } from '../platform/db/schema';
import { newSecret, secretHash } from '../platform/ids';
import { hashPassword } from '../platform/auth/passwords';
import { does, type Place } from '../platform/runner/act';
import { placeName } from '../access/called';
import { endOfDay } from '../access/entries';
import { encrypt } from '../platform/auth/encrypted';
import { visiblePlaces } from '../platform/runner/locate';

/** Longest time a pass may be open, in days. */
export const MOST_DAYS = 730;

/** Subject, body and secrets of the mail that brings a pass. */
export function passMail(
	project: { code: string; name: string },
	by: string,
	given: { what: string; link: string; until: string; password: boolean; message: string }
): [string, Letter, string[]] {
	const { what, link, until, password, message } = given;
	return [
		`${project.code}: a pass to ${what}`,
		{
			says: [`${by} gives you a pass to ${what} in ${project.name}.`],
			facts: [...(message ? [[`${by} writes`, message] as const] : []), ['Open until', until]],
			link: { word: 'Open it', href: link },
			after: [
				`No account is needed.${password ? ' It asks for a password, which comes to you another way.' : ''}`
			]
		},
		[link]
	];
}

export const makePass = does(contract.makePass, {
	async run(context, input) {
		const { tx, project, place: at, person: by, now, newId, services, tell, mail } = context;
		checkSettings(input, at.kind, project.settings.outsideLevel);
		const endsAt = endOfDay(input.until, project, now)!;
		if (endsAt > daysLater(now, MOST_DAYS))
			throw new Problem('invalid', 'A pass is open for two years at most.', { field: 'until' });
		if (input.ending) await checkEnding(tx, at, input.ending);
		const versionId = input.version === null ? null : await versionNamed(tx, at.id, input.version);
		const code = input.ending ?? newSecret();
		const passId = newId();
		await tx.insert(pass).values({
			id: passId,
			projectId: project.id,
			placeId: at.id,
			secretHash: secretHash(code),
			sealedSecret: encrypt(services.config.secret, 'pass', code),
			ownEnding: input.ending !== null,
			holderName: input.for,
			holderEmail: input.emails[0] ?? null,
			audience: input.audience,
			passwordHash: input.password === null ? null : await hashPassword(input.password),
			endsAt,
			maxUses: input.maxUses,
			mayDownload: input.mayDownload,
			versionId,
			stamped: input.stamped,
			withMarks: input.withMarks,
			embeddable: input.embeddable,
			createdBy: by.id,
			createdAt: now
		});
		const emails = [...new Set(input.emails)];
		if (emails.length)
			await tx.insert(passPerson).values(emails.map((address) => ({ passId, email: address })));
		const link = `${services.config.origin}/pass/${code}`;
		const what = await placeName(tx, at);
		for (const address of emails)
			await mail(
				{ name: input.for, address },
				...passMail(project, by.name, {
					what,
					link,
					until: dayWordsOf(endsAt, project.timeZone, now),
					password: input.password !== null,
					message: input.message
				})
			);
		tell({
			kind: 'pass.made',
			placeId: at.id,
			documentId: at.kind === 'document' ? at.id : null,
			details: {
				pass: passId,
				for: input.for,
				place: what,
				audience: input.audience,
				until: input.until,
				mayDownload: input.mayDownload,
				label: input.version
			}
		});
		return { id: passId, link, mailed: emails.length };
	}
});

/** What a pass is to be, as far as the parts of it have to fit together. */
interface Settings {
	audience: Audience;
	emails: string[];
	password: unknown;
	maxUses: number | null;
	mayDownload: boolean;
	version: string | null;
	stamped: boolean;
	withMarks: boolean;
	embeddable: boolean;
}

/** Refuses what does not fit together, or what the project does not give to people outside. */
export function checkSettings(
	input: Settings,
	kind: Place['kind'],
	outside: Parameters<typeof rank>[0] | null
): void {
	const fail = (sentence: string, field: string) => {
		throw new Problem('invalid', sentence, { field });
	};
	if (outside === null || outside === 'drop')
		fail('This project gives nothing to people outside, so no pass can be made.', 'place');
	else if (input.mayDownload && !allows(outside, 'download'))
		fail('This project lets people outside view only; make the pass for viewing.', 'mayDownload');
	if (input.audience === 'named' && !input.emails.length) fail('Name at least one mail address.', 'emails');
	if (input.audience !== 'named' && input.emails.length && input.audience === 'accounts')
		fail('A pass for people with an account names nobody.', 'emails');
	if (input.version !== null && kind !== 'document') fail('Only a document has versions.', 'version');
	if (input.stamped && !input.mayDownload) fail('Only what may be taken is stamped.', 'stamped');
	if (input.withMarks && !input.mayDownload) fail('Only what may be taken carries marks.', 'withMarks');
	if (input.embeddable && (input.audience !== 'anyone' || input.password || input.maxUses))
		fail('A pass for web pages is for anyone, without password and without a count of uses.', 'embeddable');
	if (input.embeddable && kind !== 'document')
		fail('Only a document can be shown in a web page.', 'embeddable');
}

/** Refuses an ending where sensitive content could be reached by guessing it, or when it is taken. */
async function checkEnding(tx: Tx, at: Place, ending: string): Promise<void> {
	const [sensitive] = await tx
		.select({ id: place.id })
		.from(place)
		.where(
			and(
				eq(place.projectId, at.projectId),
				eq(place.sensitive, true),
				or(inArray(place.id, idsOf(at.path)), beneath(at.path))
			)
		)
		.limit(1);
	if (sensitive)
		throw new Problem(
			'invalid',
			'This is marked sensitive, and an ending of your own is easier to guess. Leave the ending to Cupboard.',
			{ field: 'ending' }
		);
	const [taken] = await tx
		.select({ id: pass.id })
		.from(pass)
		.where(eq(pass.secretHash, secretHash(ending)));
	if (taken) throw new Problem('conflict', 'This ending is taken. Choose another one.', { field: 'ending' });
}

async function versionNamed(tx: Tx, documentId: string, label: string): Promise<string> {
	const [row] = await tx
		.select({ id: version.id })
		.from(version)
		.where(and(eq(version.documentId, documentId), eq(version.label, label)));
	if (!row) throw new Problem('invalid', `There is no version ${label}.`, { field: 'version' });
	return row.id;
}

export const withdrawPasses = does(contract.withdrawPasses, {
	async run({ tx, project, reach, person: by, now, tell }, input) {
		const ids = [...new Set(input.passes)];
		const mine = await ownPasses(tx, { project, reach, person: by }, ids);
		if (mine.length !== ids.length)
			throw new Problem('not-found', 'One of these passes is not yours to withdraw. Nothing was withdrawn.');
		let withdrawn = 0;
		for (const { pass: one, release: about } of mine) {
			if (one.withdrawnAt) continue;
			withdrawn++;
			await tx
				.update(pass)
				.set({ withdrawnAt: now, withdrawnBy: by.id })
				.where(and(or(eq(pass.id, one.id), eq(pass.alongWith, one.id)), isNull(pass.withdrawnAt)));
			tell({
				kind: 'pass.withdrawn',
				placeId: one.placeId,
				releaseId: one.releaseId,
				details: {
					pass: one.id,
					holder: one.holderName,
					...(about ? { number: about } : { place: await nameAt(tx, one.placeId) })
				}
			});
		}
		return { withdrawn };
	}
});

/**
 * Those of some passes that somebody made, or that stand where they have Manage; held for a change. Whoever made one and
 * has lost Manage there since may still end it, but neither change nor send it (`runs`).
 */
export async function ownPasses(
	tx: Tx,
	{ project, reach, person: by }: { project: { id: string }; reach: Reach; person: { id: string } },
	ids: string[]
) {
	const rows = await tx
		.select({ pass, release: release.number })
		.from(pass)
		.leftJoin(release, eq(release.id, pass.releaseId))
		.where(and(inArray(pass.id, ids), eq(pass.projectId, project.id)))
		.for('update', { of: pass });
	const places = await visiblePlaces(
		tx,
		reach,
		rows.flatMap((r) => r.pass.placeId ?? [])
	);
	return rows.flatMap((row) => {
		const at = places.find((one) => one.id === row.pass.placeId);
		const runs = runsPass(reach, at?.scope ?? null);
		return runs || row.pass.createdBy === by.id ? [{ ...row, runs }] : [];
	});
}

/** Whether somebody runs the place a pass leads to now, or as a controller everything; releases are theirs alone. */
export function runsPass(reach: Reach, scope: string | null): boolean {
	return reach.subject.controller || (scope !== null && allows(reach.level(scope), 'manage'));
}

/** What the rules ask of a pass and a person. */
export const passFacts = (
	held: Pick<typeof pass.$inferSelect, 'createdBy' | 'withdrawnAt' | 'endsAt' | 'sealedSecret'>,
	runs: boolean,
	askerId: string,
	now: Date
): PassFacts => ({
	own: held.createdBy === askerId,
	runs,
	over: held.withdrawnAt !== null || held.endsAt <= now,
	addressKept: held.sealedSecret !== null
});

export async function nameAt(tx: Tx, placeId: string | null): Promise<string> {
	const [at] = placeId ? await tx.select().from(place).where(eq(place.id, placeId)) : [];
	return at ? placeName(tx, at) : '';
}
