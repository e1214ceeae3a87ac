import { eq } from 'drizzle-orm';
import { fileOnRoute, itemOnRoute } from './on-route';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { PURPOSE_LABEL } from '../../core/revisions/revisions';
import {
	decidersOf,
	releaseNumber,
	sameApprover,
	speaksFor,
	standing,
	stepDue,
	turnOf,
	worst,
	type Approver,
	type StepStanding
} from '../../core/releases';
import { dayOf, dayWords } from '../../core/time/days';
import { calendarOf } from '../../core/time/working-days';
import { plural } from '../../core/words/sentences';
import { release, releaseDecision } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { reopen } from './acts';
import { buildOf, checkRelease } from './checks';
import { namesOf } from './route';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { handsIn } from '../platform/runner/held-release';
import { decisionsOf, speakersOf, turnIn } from '../platform/runner/on-route';
import { goesOn } from '../documents/acts';

export const askApproval = does(contract.askApproval, {
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about, false),
	async run(context) {
		const { tx, person: by, release: about, services, now, tell } = context;
		const items = await checkRelease(services, tx, about, false);
		const having = (result: 'stops' | 'look') => items.filter((i) => worst(i.checks) === result).length;
		if (having('stops'))
			throw new Problem(
				'conflict',
				`${having('stops')} of ${items.length} documents stop the release. Mend them or leave them out first.`
			);
		if (having('look'))
			throw new Problem(
				'conflict',
				`At ${having('look')} of ${items.length} documents there is something to look at. Mend it, or say why it goes out all the same.`
			);
		const { digest } = await buildOf(tx, about, items);
		const steps = standing(about.route, await decisionsOf(tx, about.id), digest);
		if (about.state === 'approved' && steps.every((one) => one.state === 'done'))
			throw new Problem('conflict', 'It is approved already; issue it, or change it.');
		await tx.update(release).set({ askedAt: now, digest }).where(eq(release.id, about.id));
		const { names, step } = await passOn(context, steps, `${by.name} asks you to approve`, items.length);
		tell({
			kind: 'release.asked',
			releaseId: about.id,
			details: { number: about.number, title: about.title, of: names, ...step }
		});
		return {};
	}
});

/** The step of a release in the details of an event, where its route has several. */
const stepOf = (about: typeof release.$inferSelect, at: number) =>
	about.route.length > 1 ? { step: about.route[at]!.name } : {};

/**
 * Gives the turn to the first step that has not approved, and asks those whom it names; where all have, the release is
 * approved and its builder is told.
 * @param asks how the notice begins
 * @returns names of whom was asked, and the step for the event
 */
async function passOn(
	context: ContextOf['release'] & Acting,
	steps: StepStanding[],
	asks: string,
	documents: number
): Promise<{ names: string; step: { step?: string } }> {
	const { tx, project: here, person: by, release: about, now } = context;
	const at = steps.findIndex((one) => one.state === 'now');
	const called = `release ${releaseNumber(about.number)}, “${about.title}”`;
	const way = `releases/${about.number}`;
	await tx
		.update(release)
		.set(
			at < 0
				? { state: 'approved', approvedAt: now, turn: null, turnSince: null }
				: { state: 'in-review', turn: at, turnSince: now, turnTold: false }
		)
		.where(eq(release.id, about.id));
	if (at < 0) {
		if (about.builtBy !== by.id)
			await tellNotices(context, {
				kind: 'approval-asked',
				people: [about.builtBy],
				releaseId: about.id,
				sentence: `${by.name} approved ${called}. Its route is done; it can be issued.`,
				way
			});
		return { names: '', step: {} };
	}
	const [step, { given }] = [about.route[at]!, steps[at]!];
	const [speakers, names, hands] = await Promise.all([
		speakersOf(tx, here, now),
		namesOf(
			tx,
			step.of.map((one) => one.id)
		),
		handsIn(tx, about.id, here)
	]);
	const waiting = step.of.filter((one) => !given.some((other) => sameApprover(other.of, one)));
	const people = new Set(waiting.flatMap((one) => decidersOf(one, speakers)));
	for (const one of [...hands, ...given.map((g) => g.by)]) people.delete(one);
	const due = stepDue(step, dayOf(now, here.timeZone), calendarOf(here.settings));
	await tellNotices(context, {
		kind: 'approval-asked',
		people: [...people],
		releaseId: about.id,
		sentence: `${asks} ${called} (${PURPOSE_LABEL[about.purpose].toLowerCase()}, ${plural(documents, 'document')}${about.route.length > 1 ? `; step ${at + 1} of ${about.route.length}, ${step.name}` : ''}${due ? `; by ${dayWords(due, dayOf(now, here.timeZone))}` : ''}).`,
		way
	});
	return { names: waiting.map((one) => names.get(one.id)).join(', '), step: stepOf(about, at) };
}

export const approveRelease = does(contract.approveRelease, {
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about, false),
	async run(context, input) {
		const { tx, services, project: here, person: by, release: about, now, tell } = context;
		const items = await checkRelease(services, tx, about, false);
		const { build, digest } = await buildOf(tx, about, items);
		if (digest !== input.digest)
			throw new Problem(
				'conflict',
				'The release is not what you looked at any more. Nothing was approved; look at what changed.',
				{ build, digest }
			);
		const before = await decisionsOf(tx, about.id);
		const at = standing(about.route, before, digest).findIndex((one) => one.state === 'now');
		if (at !== about.turn)
			throw new Problem(
				'conflict',
				`The release changed since “${about.route[at]?.name ?? ''}” approved it, and is to be asked for again from there. Nothing was approved.`,
				{ build, digest }
			);
		const turn = turnOf(
			by.id,
			about.route[at]!,
			standing(about.route, before, digest)[at]!,
			await speakersOf(tx, here, now)
		);
		if (!turn.may) throw new Problem('conflict', 'It is not your turn to decide on it.');
		await decide(context, at, turn, { says: 'approved', digest, build, reason: null });
		await tx.update(release).set({ digest }).where(eq(release.id, about.id));
		const steps = standing(about.route, await decisionsOf(tx, about.id), digest);
		if (steps[at]!.state === 'done')
			await passOn(
				context,
				steps,
				`${by.name} approved the step before. You are asked to approve`,
				items.length
			);
		tell({
			kind: 'release.approved',
			releaseId: about.id,
			details: {
				number: about.number,
				title: about.title,
				digest,
				...stepOf(about, at),
				...(await awayOf(context, turn.standsFor))
			}
		});
		return {};
	}
});

async function decide(
	{ tx, person: by, release: about, now }: ContextOf['release'] & Acting,
	step: number,
	{ of, standsFor }: { of: Approver; standsFor: string | null },
	what: Pick<typeof releaseDecision.$inferInsert, 'says' | 'digest' | 'build' | 'reason' | 'documents'>
): Promise<void> {
	await tx.insert(releaseDecision).values({
		releaseId: about.id,
		step,
		personId: by.id,
		ofKind: of.kind,
		ofId: of.id,
		standsFor,
		at: now,
		...what
	});
}

/** Who was away, for the event of a decision. */
async function awayOf(
	{ tx }: ContextOf['release'] & Acting,
	id: string | null
): Promise<{ standsFor?: string }> {
	return id === null ? {} : { standsFor: (await namesOf(tx, [id])).get(id)! };
}

export const sendBack = does(contract.sendBack, {
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about, false),
	async run(context, input) {
		const { tx, services, project: here, person: by, release: about, now, tell } = context;
		const { at, speakers } = (await turnIn(tx, about, here, by.id, now))!;
		const [of, how] = about.route[at]!.of.map((one) => [one, speaksFor(by.id, one, speakers)] as const).find(
			([, found]) => found !== null
		)!;
		const checked = await checkRelease(services, tx, about, false);
		const wrong = input.documents.map(({ document, reason }) => {
			const item = checked.find((one) => one.documentId === document);
			if (!item)
				throw new Problem(
					'conflict',
					'A document that you say something about is not in the release any more. Look at it again.'
				);
			return { number: item.number, reason };
		});
		const { build, digest } = await buildOf(tx, about, checked);
		await decide(
			context,
			at,
			{ of, standsFor: how!.standsFor },
			{ says: 'sent-back', digest, build, reason: input.reason, documents: input.documents }
		);
		await reopen(tx, about.id);
		await tellNotices(context, {
			kind: 'approval-asked',
			people: [about.builtBy],
			releaseId: about.id,
			sentence: `${by.name} sent release ${releaseNumber(about.number)}, “${about.title}”, back: ${input.reason}${wrong.length ? ` (and says what is wrong with ${plural(wrong.length, 'document')})` : ''}`,
			way: `releases/${about.number}`
		});
		tell({
			kind: 'release.sent-back',
			releaseId: about.id,
			details: {
				number: about.number,
				title: about.title,
				reason: input.reason,
				...(wrong.length ? { documents: wrong } : {}),
				...stepOf(about, at),
				...(await awayOf(context, how!.standsFor))
			}
		});
		return {};
	}
});

export const openFromRelease = does(contract.openFromRelease, {
	async run({ tx, release: about, person: by, reach, now, tell }, input) {
		const row = await itemOnRoute(tx, reach, about.id, input.document);
		if (input.how === 'downloaded' && !row.mayGive)
			throw new Problem(
				'needs-level',
				'On a release’s route one views; taking the file needs Download there.',
				{
					needed: 'download'
				}
			);
		const kind = `document.${input.how}` as const;
		const { hash, label } = await fileOnRoute(tx, reach, about, row, input.before);
		const what = { kind, actor: by.id, documentId: row.documentId, hash };
		if (input.ranged && (await goesOn(tx, what, now))) return {};
		tell({
			kind,
			placeId: row.documentId,
			documentId: row.documentId,
			releaseId: about.id,
			details: {
				number: row.number,
				label,
				hash,
				release: about.number,
				byRoute: !row.mayView
			}
		});
		return {};
	}
});
