import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { marksOf, readMark, scalesOf, writeMark } from '../../core/markup/shared';
import { Problem } from '../../core/acts/problem';
import { document, version } from '../platform/db/schema';
import { nameOf } from '../live/rooms/names';
import { defineAct } from '../platform/runner/act';
import { id } from '../platform/runner/fields';

const label = z.string().max(20);

export const carryMarks = defineAct({
	name: 'carryMarks',
	summary:
		'Carry the marks of one version over to another, with whose they are; what no longer fits is said, so that somebody looks',
	method: 'POST',
	path: '/documents/{document}/versions/{label}/marks/carried',
	input: z.strictObject({
		document: id,
		label,
		from: label,
		/** Marks under which the sheet has changed between the two. */
		changed: z.array(z.string().max(20)).max(20_000).default([])
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['marks.carried'],
	async run({ tx, services, person: by, tell }, input) {
		const [row] = await tx
			.select({ number: document.number })
			.from(document)
			.where(eq(document.id, input.document));
		const known = await tx
			.select({ label: version.label })
			.from(version)
			.where(and(eq(version.documentId, input.document), inArray(version.label, [input.label, input.from])));
		if (known.length < 2) throw new Problem('not-found', 'There are no two such versions.');
		const room = (of: string) => nameOf({ kind: 'marks', document: input.document, label: of });
		const { marks, scales } = await services.rooms.read(room(input.from), (doc) => ({
			marks: [...marksOf(doc)].flatMap(([markId, kept]) => readMark(markId, kept) ?? []),
			scales: [...scalesOf(doc)]
		}));
		const changed = new Set(input.changed);
		const carried = await services.rooms.change(room(input.label), by.id, (doc) => {
			const there = marksOf(doc);
			const fresh = marks.filter((m) => !there.has(m.id));
			for (const { id: markId, ...fields } of fresh)
				writeMark(doc, markId, { ...fields, carried: changed.has(markId) ? 'changed' : 'same' });
			for (const [page, scale] of scales) if (!scalesOf(doc).has(page)) scalesOf(doc).set(page, scale);
			return fresh.length;
		});
		if (!carried) throw new Problem('conflict', 'There is nothing to carry over that is not here already.');
		tell({
			kind: 'marks.carried',
			placeId: input.document,
			documentId: input.document,
			details: {
				number: row!.number,
				label: input.label,
				from: input.from,
				marks: carried,
				changed: changed.size
			}
		});
		return { carried };
	}
});
