import { and, asc, eq, gt, inArray, max, ne, sql } from 'drizzle-orm';
import canonicalize from 'canonicalize';
import * as contract from '../../contract/releases';
import { stateIssued } from '../../core/documents/state';
import { splitExtension } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { label, nextIssue, parse, PURPOSE_LABEL } from '../../core/revisions/revisions';
import { outgoingName, releaseNumber, worst, type Manifest } from '../../core/releases';
import { dayOf, dayWords, dayWordsOf } from '../../core/time/days';
import { daysLater } from '../../core/time/spans';
import { plural } from '../../core/words/sentences';
import type { Tx } from '../platform/db';
import {
	chainHead,
	content,
	document,
	lock,
	pass,
	passPerson,
	person,
	recipient,
	release,
	releaseItem,
	version
} from '../platform/db/schema';
import { encrypt } from '../platform/auth/encrypted';
import { hashPassword } from '../platform/auth/passwords';
import { newSecret, secretHash } from '../platform/ids';
import { buildOf, checkRelease, releaseItems, type CheckedItem } from './checks';
import { signingKey, signText } from '../platform/signing';
import { sha256 } from '../trail/write';
import { does } from '../platform/runner/act';

interface Plan {
	items: {
		documentId: string;
		fromVersionId: string;
		fromLabel: string;
		to: string;
		hash: string;
		fileName: string;
		outgoing: string;
		fresh: boolean;
	}[];
	manifest: Manifest;
	note: { hash: string; size: number };
	signature: string;
	digest: string;
}

/** Works out what issuing will do and stores the cover note; nothing of the project changes. */
async function planIssue(context: Parameters<NonNullable<typeof issueRelease.prepare>>[0]): Promise<Plan> {
	const { services, tx, project: here, release: about, person: by, now } = context;
	const checked = await checkRelease(services, tx, about, true);
	const stopping = checked.filter((c) => worst(c.checks) !== 'fine');
	if (stopping.length) {
		const first = stopping[0]!;
		throw new Problem(
			'conflict',
			`${first.number}: ${first.checks.find((c) => c.result !== 'fine' && !(c.result === 'look' && c.accepted))!.sentence} Nothing was issued.`
		);
	}
	const { digest } = await buildOf(tx, about, checked);
	const scheme = here.settings.revisions;
	const rows = await releaseItems(tx, about.id);
	const items = rows.map((row) => {
		const current = parse(scheme, row.chosenLabel);
		if (!current)
			throw new Problem('conflict', `${row.number}: ${row.chosenLabel} does not fit the revision scheme.`);
		const to = label(scheme, nextIssue(scheme, current, about.purpose));
		const outgoing = outgoingName(row.number, to, row.title, splitExtension(row.fileName)[1]);
		return {
			documentId: row.documentId,
			fromVersionId: row.versionId,
			fromLabel: row.chosenLabel,
			to,
			hash: row.hash,
			fileName: row.fileName,
			outgoing,
			fresh: to !== row.chosenLabel,
			size: row.size,
			number: row.number,
			title: row.title
		};
	});
	const [approver] = await tx.select().from(person).where(eq(person.id, about.approverId));
	const [to] = await tx.select().from(recipient).where(eq(recipient.id, about.recipientId));
	const [head] = await tx.select().from(chainHead).where(eq(chainHead.projectId, here.id));
	const manifest: Manifest = {
		format: 'cupboard-manifest/1',
		project: `${here.code} ${here.name}`,
		release: releaseNumber(about.number),
		title: about.title,
		purpose: about.purpose,
		issuedAt: now.toISOString(),
		issuedBy: by.name,
		approvedBy: approver!.name,
		recipient: `${to!.name}, ${to!.company}`,
		trail: { entry: head!.seq, hash: head!.hash },
		documents: items.map((i) => ({
			number: i.number,
			title: i.title,
			revision: i.to,
			file: i.outgoing,
			size: i.size,
			sha256: i.hash,
			...acceptedOf(checked, i.documentId)
		}))
	};
	const bytes = await services.inspector.write({
		task: 'cover-note',
		manifest,
		replyBy: about.replyBy
	});
	const note = await services.store.put(oneChunk(bytes), bytes.byteLength);
	const signature = signText(signingKey(services.config.home), canonicalize(manifest)!);
	return { items, manifest, note, signature, digest };
}

/** What of a document was looked at and goes out with a reason, for the manifest and the cover note. */
function acceptedOf(checked: CheckedItem[], documentId: string) {
	const accepted = checked
		.find((c) => c.documentId === documentId)!
		.checks.flatMap((c) =>
			c.accepted
				? [{ check: c.name, sentence: c.sentence, reason: c.accepted.reason, by: c.accepted.by }]
				: []
		);
	return accepted.length ? { accepted } : {};
}

async function* oneChunk(bytes: Uint8Array) {
	yield bytes;
}

/** What the mail says of what the pass asks for. */
const ASKS = {
	nothing: '',
	code: ' It asks for a code, which it mails to this address.',
	password: ' It asks for a password, which comes to you another way.'
};

export const issueRelease = does(contract.issueRelease, {
	prepare: (context): Promise<unknown> => planIssue(context),
	async run(
		{ tx, project: here, person: by, release: about, services, now, newId, prepared, tell, mail, enqueue },
		input
	) {
		const plan = prepared as Plan;
		if (input.number !== about.number)
			throw new Problem(
				'invalid',
				`This is release ${releaseNumber(about.number)}. Type its number to issue it. Nothing was issued.`,
				{ field: 'number' }
			);
		if (about.approvedDigest !== plan.digest)
			throw new Problem(
				'conflict',
				'The release is not what was approved any more. Nothing was issued; ask for approval again.'
			);
		const ids = plan.items.map((i) => i.documentId);
		const documents = await tx
			.select()
			.from(document)
			.where(inArray(document.id, ids))
			.orderBy(asc(document.id))
			.for('update');
		const open = await tx
			.select()
			.from(lock)
			.where(and(inArray(lock.documentId, ids), sql`ended_at is null`));
		const chosen = await tx.select().from(releaseItem).where(eq(releaseItem.releaseId, about.id));
		const asPlanned =
			chosen.length === plan.items.length &&
			plan.items.every(
				(i) =>
					documents.some((d) => d.id === i.documentId && d.live && d.currentVersionId === i.fromVersionId) &&
					chosen.some((c) => c.versionId === i.fromVersionId)
			);
		if (!asPlanned || open.length)
			throw new Problem(
				'conflict',
				'A document changed while the release was being issued. Nothing was issued; run the checks again.'
			);

		await tx
			.insert(content)
			.values({ ...plan.note, mediaType: 'application/pdf', createdAt: now })
			.onConflictDoNothing();
		const state = stateIssued(about.purpose, here.settings.publishingPurposes);
		const reissued = plan.items.filter((i) => i.fresh).map((i) => i.documentId);
		for (const item of plan.items) {
			const row = documents.find((d) => d.id === item.documentId)!;
			let versionId = item.fromVersionId;
			if (item.fresh) {
				versionId = newId();
				const [last] = await tx
					.select({ seq: max(version.seq) })
					.from(version)
					.where(eq(version.documentId, row.id));
				await tx.insert(version).values({
					id: versionId,
					documentId: row.id,
					seq: last!.seq! + 1,
					label: item.to,
					issued: true,
					hash: item.hash,
					fileName: item.fileName,
					note: `Issued ${PURPOSE_LABEL[about.purpose].toLowerCase()} in ${releaseNumber(about.number)}`,
					releaseId: about.id,
					createdBy: by.id,
					createdAt: now
				});
			}
			await tx
				.update(document)
				.set({
					currentVersionId: versionId,
					versions: row.versions + (item.fresh ? 1 : 0),
					state,
					changedAt: now,
					changedBy: by.id
				})
				.where(eq(document.id, row.id));
			await tx
				.update(releaseItem)
				.set({ versionId, fromLabel: item.fromLabel, pinnedHash: item.hash, outgoingName: item.outgoing })
				.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, row.id)));
			tell({
				kind: 'document.issued',
				placeId: row.id,
				documentId: row.id,
				releaseId: about.id,
				details: {
					number: row.number,
					label: item.to,
					from: item.fromLabel,
					release: about.number,
					hash: item.hash
				}
			});
		}
		const manifestText = canonicalize(plan.manifest)!;
		await tx
			.update(release)
			.set({
				state: 'issued',
				issuedAt: now,
				issuedBy: by.id,
				manifest: plan.manifest,
				manifestHash: sha256(manifestText),
				manifestSignature: plan.signature,
				coverNoteHash: plan.note.hash
			})
			.where(eq(release.id, about.id));
		for (const number of await supersede(tx, here.id, about.id, reissued))
			tell({
				kind: 'release.superseded',
				releaseId: number.id,
				details: { number: number.number, by: about.number }
			});

		const [to] = await tx.select().from(recipient).where(eq(recipient.id, about.recipientId));
		if ((input.asks === 'password') !== (input.password !== null))
			throw new Problem('invalid', 'Give the password that the pass is to ask for. Nothing was issued.', {
				field: 'password'
			});
		const secret = newSecret();
		const passId = newId();
		const endsAt = daysLater(now, input.passDays);
		await tx.insert(pass).values({
			id: passId,
			projectId: here.id,
			releaseId: about.id,
			secretHash: secretHash(secret),
			sealedSecret: encrypt(services.config.secret, 'pass', secret),
			audience: input.asks === 'code' ? 'named' : 'anyone',
			passwordHash: input.password === null ? null : await hashPassword(input.password),
			holderName: to!.name,
			holderEmail: to!.email,
			createdBy: by.id,
			endsAt,
			createdAt: now
		});
		if (input.asks === 'code') await tx.insert(passPerson).values({ passId, email: to!.email });
		const link = `${services.config.origin}/pass/${secret}`;
		await mail(
			{ name: to!.name, address: to!.email },
			`${here.code} release ${releaseNumber(about.number)}: ${about.title}`,
			{
				says: [`${by.name} sends you release ${releaseNumber(about.number)}, “${about.title}”.`],
				facts: [
					['Purpose', PURPOSE_LABEL[about.purpose]],
					['Holds', plural(plan.items.length, 'document')],
					...(about.replyBy
						? [['Please reply by', dayWords(about.replyBy, dayOf(now, here.timeZone))] as const]
						: []),
					['Open until', dayWordsOf(endsAt, here.timeZone, now)]
				],
				link: { word: 'Open the release', href: link },
				after: [`No account is needed.${ASKS[input.asks]}`]
			},
			[link]
		);
		tell({
			kind: 'release.issued',
			releaseId: about.id,
			details: {
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				documents: plan.items.length,
				to: to!.company,
				manifest: sha256(manifestText),
				note: plan.note.hash
			}
		});
		await enqueue('sign-heads', { project: here.id });
		return { number: about.number, documents: plan.items.length, pass: link };
	}
});

/** Marks earlier releases whose every document has a later issued revision. */
async function supersede(tx: Tx, projectId: string, releaseId: string, reissued: string[]) {
	if (!reissued.length) return [];
	const later = tx
		.select({ one: sql`1` })
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.where(
			and(
				eq(releaseItem.releaseId, release.id),
				sql`not exists (select 1 from version n where n.document_id = ${version.documentId} and n.issued and n.seq > ${version.seq})`
			)
		);
	return tx
		.update(release)
		.set({ state: 'superseded' })
		.where(
			and(
				eq(release.projectId, projectId),
				eq(release.state, 'issued'),
				ne(release.id, releaseId),
				sql`not exists ${later}`
			)
		)
		.returning({ id: release.id, number: release.number });
}

export const withdrawPass = does(contract.withdrawPass, {
	async run({ tx, person: by, release: about, now, tell }) {
		const done = await tx
			.update(pass)
			.set({ withdrawnAt: now, withdrawnBy: by.id })
			.where(and(eq(pass.releaseId, about.id), sql`withdrawn_at is null`, gt(pass.endsAt, now)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'The release has no pass that is still open.');
		tell({
			kind: 'pass.withdrawn',
			releaseId: about.id,
			details: { pass: done[0]!.id, number: about.number, holder: done[0]!.holderName }
		});
		return {};
	}
});
