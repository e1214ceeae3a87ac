import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import * as contract from '../../contract/remarks';
import { assignee, remarkInput } from '../../contract/remarks';
import { allows } from '../../core/access/levels';
import { whoReaches } from '../../core/access/model';
import type { LiveKind } from '../../core/live/live';
import { Problem } from '../../core/acts/problem';
import { orRefuse } from '../../core/acts/answer';
import { mayRemark, type RemarkAct } from '../../core/remarks/may';
import { dayOf, dayWords } from '../../core/time/days';
import { shortened } from '../../core/words/sentences';
import { mentionsIn, plainRemark, type Anchor } from '../../core/remarks/remarks';
import { heldLock, readDocument } from '../platform/runner/held';
import { spotFacts } from '../platform/runner/locate';
import { markPassage } from '../../core/text/passages';
import { loadModel } from '../access/model';
import type { Tx } from '../platform/db';
import {
	department,
	departmentMember,
	document,
	member,
	person,
	remark,
	remarkAnswer,
	version
} from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { does, type Acting, type ContextOf } from '../platform/runner/act';

type Here = ContextOf['place'] & Acting;
type Assignee = z.output<typeof assignee>;

/** Ids of everybody who may look at the place of an act. */
async function lookers({ tx, project, place, now }: Here): Promise<Set<string>> {
	const model = await loadModel(tx, project.id);
	const found = new Set<string>();
	for (const { personId, level } of whoReaches(model, place.scope, now.getTime()))
		if (allows(level, 'view')) found.add(personId);
	return found;
}

/**
 * The people behind a person or department, of those who may look here. Raises `invalid` when there are none: who cannot
 * see a document cannot be asked about it.
 */
async function peopleOf(
	context: Here,
	whom: Assignee,
	seeing: Set<string>
): Promise<{ name: string; people: string[] }> {
	const { tx, project } = context;
	if (whom.kind === 'person') {
		const [row] = await tx
			.select({ id: person.id, name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(and(eq(member.projectId, project.id), eq(member.personId, whom.id), isNull(member.leftAt)));
		if (!row || !seeing.has(row.id))
			throw new Problem('invalid', `${row?.name ?? 'This person'} cannot look at this document.`);
		return { name: row.name, people: [row.id] };
	}
	const [row] = await tx
		.select({ name: department.name })
		.from(department)
		.where(and(eq(department.id, whom.id), eq(department.projectId, project.id)));
	const members = await tx
		.select({ id: departmentMember.personId })
		.from(departmentMember)
		.where(eq(departmentMember.departmentId, whom.id));
	const people = members.map((m) => m.id).filter((one) => seeing.has(one));
	if (!row || !people.length)
		throw new Problem('invalid', `Nobody of ${row?.name ?? 'this department'} can look at this document.`);
	return { name: row.name, people };
}

/** Tells whom a text mentions, apart from those told already. */
async function tellMentioned(
	context: Here,
	text: string,
	about: { number: string; remark: number; way: string },
	told: Set<string>
): Promise<void> {
	const mentions = mentionsIn(text);
	if (!mentions.length) return;
	const seeing = await lookers(context);
	const people: string[] = [];
	for (const one of mentions) people.push(...(await peopleOf(context, one, seeing)).people);
	await tellNotices(context, {
		kind: 'remark-mentioned',
		people: people.filter((one) => one !== context.person.id && !told.has(one)),
		placeId: context.place.id,
		sentence: `${context.person.name} mentions you in remark ${about.remark} on ${about.number}: ${shortened(plainRemark(text), 300)}`,
		way: about.way
	});
	people.forEach((one) => told.add(one));
}

async function assign(
	context: Here,
	about: { id: string; number: number; document: string; text: string },
	to: Assignee,
	due: string | null,
	told: Set<string>
): Promise<string> {
	const { tx, project, person: by, place, now } = context;
	const { name, people } = await peopleOf(context, to, await lookers(context));
	await tx
		.update(remark)
		.set({
			assignedPerson: to.kind === 'person' ? to.id : null,
			assignedDepartment: to.kind === 'department' ? to.id : null,
			due
		})
		.where(eq(remark.id, about.id));
	await tellNotices(context, {
		kind: 'remark-assigned',
		people: people.filter((one) => one !== by.id && !told.has(one)),
		placeId: place.id,
		sentence: `${by.name} gives ${to.kind === 'person' ? 'you' : name} remark ${about.number} on ${about.document} to settle${due ? ` by ${dayWords(due, dayOf(now, project.timeZone))}` : ''}: ${shortened(plainRemark(about.text), 300)}`,
		way: wayTo(place.id, about.number)
	});
	people.forEach((one) => told.add(one));
	return name;
}

const wayTo = (documentId: string, number: number) => `document/${documentId}?remark=${number}`;

/** The next number of a remark on a document whose row is held. */
export async function nextNumber(tx: Tx, documentId: string): Promise<number> {
	const [row] = await tx
		.select({ most: sql<number>`coalesce(max(${remark.number}), 0)::int` })
		.from(remark)
		.where(eq(remark.documentId, documentId));
	return row!.most + 1;
}

/** The kind of live document that a place of a remark is found in. */
const KIND_OF: Partial<Record<Anchor['on'], LiveKind>> = {
	passage: 'text',
	cell: 'schedule',
	entity: 'drawing'
};

interface Marked {
	mark: string;
	quote: string;
}

export const addRemark = does(contract.addRemark, {
	// The mark is set in the live text before: one without a remark harms nobody, a remark without its mark does.
	async prepare(context, input): Promise<Marked | null> {
		const { anchor } = input;
		const kind = KIND_OF[anchor.on];
		if (!kind) return null;
		const [row] = await context.tx
			.select({ room: document.room, kind: document.kind })
			.from(document)
			.where(eq(document.id, input.document));
		if (!row?.room || row.kind !== kind)
			throw new Problem('invalid', `This can be remarked on in a live ${kind} only.`);
		if (anchor.on !== 'passage') return null;
		const { from, to } = anchor;
		const mark = context.newId();
		const quote = await context.services.rooms.change(row.room, context.person.id, (doc) =>
			markPassage(doc, from, to, mark)
		);
		if (quote === null) throw new Problem('conflict', 'The passage was taken out meanwhile.');
		return { mark, quote };
	},
	async run(context, input) {
		const { tx, person: by, now, newId, tell, prepared } = context;
		const [held] = await tx.select().from(document).where(eq(document.id, input.document)).for('update');
		const [on] = await tx
			.select({ id: version.id, label: version.label })
			.from(version)
			.where(
				and(
					eq(version.documentId, input.document),
					input.label ? eq(version.label, input.label) : eq(version.id, held!.currentVersionId)
				)
			);
		if (!on) throw new Problem('not-found', `There is no version ${input.label}.`);
		const marked = prepared as Marked | null;
		const anchor: Anchor =
			input.anchor.on === 'passage' ? { on: 'passage', mark: marked!.mark } : input.anchor;
		const made = { id: newId(), number: await nextNumber(tx, input.document) };
		await tx.insert(remark).values({
			...made,
			documentId: input.document,
			versionId: on.id,
			anchor,
			quote: marked?.quote ?? input.quote,
			text: input.text,
			createdBy: by.id,
			createdAt: now
		});
		const told = new Set<string>();
		const about = { ...made, document: held!.number, text: input.text };
		if (input.assign) await assign(context, about, input.assign, input.due ?? null, told);
		await tellMentioned(
			context,
			input.text,
			{ number: held!.number, remark: made.number, way: wayTo(input.document, made.number) },
			told
		);
		tell({
			kind: 'remark.added',
			placeId: input.document,
			documentId: input.document,
			details: { number: held!.number, label: on.label, remark: made.number, text: plainRemark(input.text) }
		});
		return { id: made.id, number: made.number };
	}
});

/** The remark of an act with its document's number, its row held. */
async function theRemark({ tx }: Here, input: z.output<typeof remarkInput>) {
	const [row] = await tx
		.select({ remark, number: document.number })
		.from(remark)
		.innerJoin(document, eq(document.id, remark.documentId))
		.where(and(eq(remark.documentId, input.document), eq(remark.number, input.remark)))
		.for('update', { of: remark });
	if (!row) throw new Problem('not-found', `There is no remark ${input.remark}.`);
	return row;
}

/** Everybody who has said something in a remark, and whom it is assigned to. */
async function partTaking({ tx }: Here, row: typeof remark.$inferSelect): Promise<string[]> {
	const answers = await tx
		.select({ by: remarkAnswer.createdBy })
		.from(remarkAnswer)
		.where(eq(remarkAnswer.remarkId, row.id));
	return [row.createdBy, ...answers.map((a) => a.by), ...(row.assignedPerson ? [row.assignedPerson] : [])];
}

export const answerRemark = does(contract.answerRemark, {
	async run(context, input) {
		const { tx, person: by, now, newId, tell } = context;
		const { remark: row, number } = await theRemark(context, input);
		const told = new Set<string>();
		const about = { number, remark: row.number, way: wayTo(input.document, row.number) };
		await tellMentioned(context, input.text, about, told);
		const seeing = await lookers(context);
		await tellNotices(context, {
			kind: 'remark-answered',
			people: (await partTaking(context, row)).filter(
				(one) => one !== by.id && !told.has(one) && seeing.has(one)
			),
			placeId: input.document,
			sentence: `${by.name} answers remark ${row.number} on ${number}: ${shortened(plainRemark(input.text), 300)}`,
			way: about.way
		});
		await tx
			.insert(remarkAnswer)
			.values({ id: newId(), remarkId: row.id, text: input.text, createdBy: by.id, createdAt: now });
		tell({
			kind: 'remark.answered',
			placeId: input.document,
			documentId: input.document,
			details: { number, remark: row.number, text: plainRemark(input.text) }
		});
		return {};
	}
});

/** Raises what the rules of remarks answer, when they say no. */
async function ask(context: Here, act: RemarkAct, row: typeof remark.$inferSelect): Promise<void> {
	const { tx, place: at, person: by, now } = context;
	const { row: about, open } = await readDocument(tx, at.id);
	const facts = spotFacts(context, at, about.state === 'archived', open && heldLock(open, by.id), now);
	const who = { id: by.id, departments: context.reach.subject.departments };
	orRefuse(mayRemark(act, { ...facts, remark: { ...row, settled: row.settledAt !== null }, who }));
}

async function settle(context: Here, input: z.output<typeof remarkInput>, said: string | null) {
	const { tx, person: by, now, tell } = context;
	const { remark: row, number } = await theRemark(context, input);
	const settling = said !== null;
	await ask(context, settling ? 'settleRemark' : 'reopenRemark', row);
	await tx
		.update(remark)
		.set(
			settling
				? { settledAt: now, settledBy: by.id, settledNote: said }
				: { settledAt: null, settledBy: null, settledNote: null }
		)
		.where(eq(remark.id, row.id));
	tell({
		kind: settling ? 'remark.settled' : 'remark.reopened',
		placeId: input.document,
		documentId: input.document,
		details: { number, remark: row.number, note: said ?? '' }
	});
	const seeing = await lookers(context);
	await tellNotices(context, {
		kind: 'remark-answered',
		people: (await partTaking(context, row)).filter((one) => one !== by.id && seeing.has(one)),
		placeId: input.document,
		sentence: `${by.name} ${settling ? 'settled' : 'reopened'} remark ${row.number} on ${number}${said ? `: ${said}` : ''}.`,
		way: wayTo(input.document, row.number)
	});
	return {};
}

export const settleRemark = does(contract.settleRemark, {
	run: (context, input) => settle(context, input, input.note)
});

export const reopenRemark = does(contract.reopenRemark, {
	run: (context, input) => settle(context, input, null)
});

export const assignRemark = does(contract.assignRemark, {
	async run(context, input) {
		const { remark: row, number } = await theRemark(context, input);
		await ask(context, 'assignRemark', row);
		const about = { id: row.id, number: row.number, document: number, text: row.text };
		const to = await assign(context, about, input.assign, input.due ?? null, new Set());
		context.tell({
			kind: 'remark.assigned',
			placeId: input.document,
			documentId: input.document,
			details: { number, remark: row.number, to, due: input.due ?? null }
		});
		return {};
	}
});

export const settleRemarks = does(contract.settleRemarks, {
	async run(context, input) {
		const open = await context.tx
			.select({ number: remark.number })
			.from(remark)
			.where(
				and(
					eq(remark.documentId, input.document),
					isNull(remark.settledAt),
					inArray(
						remark.number,
						input.lines.map((l) => l.remark)
					)
				)
			);
		const waiting = new Set(open.map((o) => o.number));
		for (const line of input.lines)
			if (waiting.delete(line.remark))
				await settle(context, { document: input.document, remark: line.remark }, line.note);
		return { settled: open.length };
	}
});
