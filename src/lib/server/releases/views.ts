import { and, asc, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { CONTRACTS } from '../../contract';
import * as contract from '../../contract/release-views';
import { canNow } from '../platform/runner/can';
import { mayRelease, RELEASE_ACTS } from '../../core/releases/may';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { label, nextIssue, parse } from '../../core/revisions/revisions';
import {
	canConsolidate,
	changesWords,
	gets,
	outcomeOf,
	suitabilityOf,
	worst,
	type Changes
} from '../../core/releases';
import { releaseFacts } from '../platform/runner/held-release';
import { notFound, releaseNotShown } from '../platform/runner/not-shown';
import { askedOf, builtAgainFor, turnIn } from '../platform/runner/on-route';
import { namesOf, releasesWaitingFor } from './route';
import { lookedAt, routeStanding } from './standing';
import { answers } from '../platform/runner/act';
import { signersOf } from '../platform/certificate';
import { publicKeyOf } from '../platform/signing';
import type { Querier } from '../platform/db';
import { person, release, remark } from '../platform/db/schema';
import { buildOf, checkRelease, releaseItems } from './checks';
import { alongBy } from './answered';
import { colleaguesOf } from './colleagues';
import { goingOut, putOn } from './outgoing';
import { draftPapers } from './papers';
import { fileOnRoute, itemOnRoute, mayCompare } from './on-route';
import { earlierFile, earlierRevisions, laterRevisions } from './revisions';
import { ASKED_ON, DIFFERS, recipientsOf, signedVerdicts, verdictsOn } from './recipients';

/** How many documents each release holds, and how far those who got it have answered. */
const figuresOf = (db: Querier) => {
	const to = db
		.select({
			companies: sql<string>`string_agg(distinct t.company, ', ')`.as('companies'),
			recipients: sql<number>`count(*)::int`.as('recipients'),
			received: sql<number>`count(p.received_at)::int`.as('received'),
			colleagues:
				sql<number>`coalesce(sum((select count(*) from colleague c where c.pass_id = p.id and c.state = 'asked')), 0)::int`.as(
					'colleagues'
				),
			replyBy: sql<
				string | null
			>`min(coalesce(rr.reply_by, release.reply_by)) filter (where rr.expects = 'verdicts')`.as('reply_day')
		})
		.from(
			sql`release_recipient rr join recipient t on t.id = rr.recipient_id left join pass p on p.id = rr.pass_id`
		)
		.where(sql`rr.release_id = release.id`)
		.as('sent');
	const items = db
		.select({
			documents: sql<number>`count(*)::int`.as('documents'),
			asked: sql<number>`(count(*) filter (where ${ASKED_ON}))::int`.as('asked'),
			answered: sql<number>`count(i.outcome)::int`.as('answered'),
			differing: sql<number>`(count(*) filter (where ${DIFFERS}))::int`.as('differing')
		})
		.from(sql`release_item i`)
		.where(sql`i.release_id = release.id`)
		.as('held');
	return { to, items };
};

export const releases = answers(contract.releases, {
	async run({ db, project, reach, person: me, now }) {
		const { to: sent, items: held } = figuresOf(db);
		const waiting = await releasesWaitingFor(db, project, me.id, now);
		const rows = await db
			.select({
				id: release.id,
				number: release.number,
				title: release.title,
				purpose: release.purpose,
				state: release.state,
				issuedAt: release.issuedAt,
				createdAt: release.createdAt,
				approvedAt: release.approvedAt,
				builtBy: person.name,
				route: release.route,
				turn: release.turn,
				to: sent.companies,
				recipients: sent.recipients,
				received: sent.received,
				colleagues: sent.colleagues,
				replyBy: sent.replyBy,
				documents: held.documents,
				asked: held.asked,
				answered: held.answered,
				differing: held.differing
			})
			.from(release)
			.innerJoin(person, eq(person.id, release.builtBy))
			.innerJoinLateral(sent, sql`true`)
			.innerJoinLateral(held, sql`true`)
			.where(
				and(eq(release.projectId, project.id), reach.subject.controller ? sql`true` : askedOf(me.id, now))
			)
			.orderBy(desc(release.number));
		return {
			releases: rows.map(({ route, turn, approvedAt, ...row }) => ({
				...row,
				steps: route.length,
				approved: turn ?? (approvedAt ? route.length : 0),
				turn: turn === null ? null : route[turn]!.name,
				/** The reader's approval is asked for. */
				waitsForMe: waiting.has(row.id),
				issuedAt: row.issuedAt?.toISOString() ?? null,
				createdAt: row.createdAt.toISOString()
			}))
		};
	}
});

export const releaseContent = answers(contract.releaseContent, {
	async run({ db, release: about, reach }, input) {
		const row = await itemOnRoute(db, reach, about.id, input.document);
		const { number, title, mayGive, mayView } = row;
		const shown = await fileOnRoute(db, reach, about, row, input.before);
		const before = mayCompare(reach, row) ? await earlierFile(db, about.id, row.documentId) : null;
		const asKept = shown.mediaType === row.mediaType;
		const said = await db
			.select({ remark, by: person.name })
			.from(remark)
			.innerJoin(person, eq(person.id, remark.createdBy))
			.where(
				and(eq(remark.releaseId, about.id), eq(remark.documentId, input.document), isNull(remark.fromName))
			)
			.orderBy(asc(remark.number));
		return {
			...{ ...shown, number, title, mayGive, mayView },
			before: before && {
				label: before.label,
				mediaType: before.mediaType,
				same: before.hash === shown.hash
			},
			remarks: said.map(({ remark: one, by }) => {
				const { anchor } = one;
				return {
					...{ id: one.id, number: one.number, by, at: one.createdAt.toISOString(), text: one.text },
					place: anchor.on === 'place' && asKept ? { page: anchor.page, x: anchor.x, y: anchor.y } : null,
					settled: one.settledAt !== null
				};
			})
		};
	}
});

const wordsOf = (changes: Changes | null) => changes && changesWords(changes);

/** What the contract of an act of a release asks for. */
const ASKED = new Map(
	CONTRACTS.flatMap(({ name, at }) => (at.kind === 'release' ? [[name, at] as const] : []))
);

export const releaseView = answers(contract.releaseView, {
	async run({ db, project, reach, person: me, self, services, now }, input) {
		const { controller } = reach.subject;
		const [found] = await db
			.select({
				about: release,
				shown: sql<boolean>`(${askedOf(me.id, now)})`,
				builtAgain: builtAgainFor(me.id, now)
			})
			.from(release)
			.where(and(eq(release.projectId, project.id), eq(release.number, input.number)));
		if (!found) throw notFound();
		const { about, shown, builtAgain } = found;
		if (!controller && !shown) throw releaseNotShown(about.number, builtAgain);
		const facts = await releaseFacts(db, about, project, { id: me.id, controller }, now);
		const named = await db
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(
				or(
					...[about.builtBy, about.issuedBy]
						.filter((v): v is string => v !== null)
						.map((v) => eq(person.id, v))
				)
			);
		const nameOf = (id: string | null) => named.find((n) => n.id === id)?.name ?? null;
		const recipients = await recipientsOf(db, about.id);
		const done = about.state === 'issued' || about.state === 'superseded';
		const signers = done ? await signersOf(services.config) : null;
		const checks = done || about.state === 'cancelled' ? [] : await checkRelease(services, db, about, false);
		const looked = checks.length ? await buildOf(db, about, checks) : null;
		const earlier = done ? new Map<string, string>() : await earlierRevisions(db, about.id);
		const later = done
			? await laterRevisions(db, about.id)
			: new Map<string, { label: string; at: string }>();
		const signed: Awaited<ReturnType<typeof signedVerdicts>> = done
			? await signedVerdicts(db, about.id)
			: new Map();
		const { route, last } = await routeStanding(db, about, project, looked, now);
		const mine = await turnIn(db, about, project, me.id, now);
		const rows = await releaseItems(db, about.id);
		const opened = await lookedAt(db, me.id, rows);
		const consolidators = await namesOf(
			db,
			rows.flatMap((row) => row.outcomeBy ?? [])
		);
		const passes = recipients.flatMap((one) => one.passId ?? []);
		// Whom somebody outside asks to bring in is for those who answer them.
		const colleagues = controller ? await colleaguesOf(db, passes) : [];
		const along = await alongBy(db, passes);
		/** What came with a signed verdict; what is not signed is nobody's to know. */
		const alongWith = (passId: string | null, documentId: string) => {
			const { placed, drawn, files } = along(passId, documentId);
			return {
				placed: placed.length,
				drawn: drawn.length,
				sides: files.flatMap((one) => one.side ?? [])
			};
		};
		const items = rows.map((row) => {
			const current = parse(project.settings.revisions, row.chosenLabel);
			const on = verdictsOn(recipients, signed, row.documentId);
			const given = on.map((one) => one.signed?.code ?? null);
			const mayView = allows(reach.level(row.scope), 'view');
			return {
				documentId: row.documentId,
				number: row.number,
				title: row.title,
				heading: row.heading,
				from: row.fromLabel,
				label: row.chosenLabel,
				to: done
					? row.chosenLabel
					: current
						? label(project.settings.revisions, nextIssue(project.settings.revisions, current, about.purpose))
						: '?',
				hash: row.sentHash,
				leaves: done
					? (about.manifest?.documents.find((one) => one.number === row.number)?.madeFrom?.how ?? null)
					: wordsOf(checks.find((c) => c.documentId === row.documentId)?.changes ?? null),
				size: row.size,
				mediaType: row.mediaType,
				mayView,
				looked: opened.has(row.documentId),
				checks: checks.find((c) => c.documentId === row.documentId)?.checks ?? [],
				later: later.get(row.documentId) ?? null,
				/** The issued revision that this one takes the place of. */
				supersedes: earlier.get(row.documentId) ?? null,
				compares: mayCompare(reach, { mayView }) ? (earlier.get(row.documentId) ?? null) : null,
				verdicts: on.map((one) => ({
					name: one.signed?.signedName ?? one.of.name,
					company: one.of.company,
					code: one.signed?.code ?? null,
					remark: one.signed?.remark ?? '',
					...alongWith(one.signed ? one.of.passId : null, row.documentId),
					at: one.signed?.signedAt?.toISOString() ?? null
				})),
				outcome: on.length ? (row.outcome ?? outcomeOf(given)) : null,
				consolidated: row.outcomeBy
					? {
							by: consolidators.get(row.outcomeBy) ?? '',
							at: row.outcomeAt!.toISOString(),
							reason: row.outcomeReason!
						}
					: null,
				mayConsolidate: controller && done && row.outcome === null && canConsolidate(given)
			};
		});
		return {
			release: {
				id: about.id,
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				suitability: about.manifest?.suitability ?? suitabilityOf(project.settings, about.purpose),
				state: about.state,
				replyBy: about.replyBy,
				words: about.words,
				stamped: about.stamped,
				withMarks: about.withMarks,
				arrangement: about.arrangement,
				builtBy: nameOf(about.builtBy)!,
				issuedBy: nameOf(about.issuedBy),
				createdAt: about.createdAt.toISOString(),
				askedAt: about.askedAt?.toISOString() ?? null,
				approvedAt: about.approvedAt?.toISOString() ?? null,
				issuedAt: about.issuedAt?.toISOString() ?? null,
				cancelledAt: about.cancelledAt?.toISOString() ?? null,
				cancelledReason: about.cancelledReason,
				manifestHash: about.manifestHash,
				key: signers ? publicKeyOf(signers.key).fingerprint : null,
				certificate: signers?.certificate.fingerprint ?? null
			},
			recipients: recipients.map((one) => {
				const mine = rows.filter((row) => gets(one, row.documentId));
				const theirs = colleagues.filter((c) => c.passId === one.passId);
				return {
					recipient: one.recipientId,
					name: one.name,
					company: one.company,
					email: one.email,
					expects: one.expects,
					replyBy: one.replyBy,
					asks: one.asks,
					documents: one.documents,
					gets: mine.length,
					answered: mine.filter((row) => signed.has(`${one.passId} ${row.documentId}`)).length,
					colleagues: theirs.map(({ id, name, email, instead, words, askedBy, state }) => ({
						id,
						name,
						email,
						instead,
						words,
						askedBy,
						state
					})),
					pass: one.pass && {
						endsAt: one.pass.endsAt.toISOString(),
						withdrawnAt: one.pass.withdrawnAt?.toISOString() ?? null,
						open: one.pass.withdrawnAt === null && one.pass.endsAt > now,
						uses: one.pass.uses,
						lastUsedAt: one.pass.lastUsedAt?.toISOString() ?? null,
						receivedAt: one.pass.receivedAt?.toISOString() ?? null
					}
				};
			}),
			items,
			stopping: items.filter((i) => i.checks.length && worst(i.checks) === 'stops').length,
			looking: items.filter((i) => i.checks.length && worst(i.checks) === 'look').length,
			controller,
			issueNeeds: project.settings.issueNeeds ?? 'number',
			/** What an approval approves, and by what it says so. */
			build: looked?.build ?? null,
			digest: looked?.digest ?? null,
			route,
			decidesFor:
				mine?.turn.may && mine.turn.standsFor
					? ((await namesOf(db, [mine.turn.standsFor])).get(mine.turn.standsFor) ?? null)
					: null,
			last,
			can: canNow({ self, person: me }, RELEASE_ACTS, (name) => mayRelease(ASKED.get(name)!, facts))
		};
	}
});

export const coverNoteDraft = answers(contract.coverNoteDraft, {
	async run({ db, project: here, person: me, release: about, services, now }, input) {
		if (!['building', 'in-review', 'approved'].includes(about.state))
			throw new Problem('not-found', 'There is nothing to draft any more: the release is out, or cancelled.');
		const checked = await checkRelease(services, db, about, false);
		const { digest } = await buildOf(db, about, checked);
		const items = await goingOut(db, about, here, checked);
		const { each } = await draftPapers(db, about, here, me.name, now, { checked, digest }, items);
		const mine = each.find(({ to }) => to.recipientId === input.recipient);
		if (!mine) throw new Problem('not-found', 'They do not get this release.');
		return { ...mine.draft, number: about.number };
	}
});

export const releaseOutgoing = answers(contract.releaseOutgoing, {
	async run({ db, project: here, release: about, services, now }, input) {
		const gone = new Problem('not-found', 'The document is not in this release, or nothing goes out.');
		if (about.issuedAt) {
			const row = (await releaseItems(db, about.id)).find((one) => one.documentId === input.document);
			if (!row) throw gone;
			const [hash, size, mediaType] = [row.sentHash!, row.sentSize!, row.sentType!];
			return { hash, size, mediaType, fileName: row.outgoingName!, put: null };
		}
		if (about.state === 'cancelled') throw gone;
		const checked = await checkRelease(services, db, about, false);
		const item = (await goingOut(db, about, here, checked)).find((one) => one.documentId === input.document);
		if (!item) throw gone;
		const { hash, size, mediaType, outgoing: fileName, changes } = item;
		return { hash, size, mediaType, fileName, put: changes && putOn(about, here, now, { ...item, changes }) };
	}
});

export const releaseCoverNote = answers(contract.releaseCoverNote, {
	async run({ release: about }) {
		if (!about.coverNoteHash)
			throw new Problem('not-found', 'The cover note is made when the release is issued.');
		return { hash: about.coverNoteHash, number: about.number };
	}
});
