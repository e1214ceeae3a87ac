import { and, eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/marks';
import { marksOf, readMark, scalesOf, writeMark } from '../../core/markup/shared';
import { Problem } from '../../core/acts/problem';
import { document, version } from '../platform/db/schema';
import { nameOf } from '../live/rooms/names';
import { does } from '../platform/runner/act';

export const carryMarks = does(contract.carryMarks, {
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
