import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { marksMode } from '../../core/live/live';
import { Problem } from '../../core/acts/problem';
import { defineView } from '../platform/runner/act';
import { id } from '../platform/runner/fields';
import type { Querier } from '../platform/db';
import { version } from '../platform/db/schema';
import { nameOf } from '../live/rooms/names';
import { readMarks } from './read';

const versionInput = z.strictObject({ document: id, label: z.string().max(20) });

/** The room of the marks on a version. Raises `not-found` when there is no such version. */
async function roomOf(db: Querier, input: z.output<typeof versionInput>): Promise<string> {
	const [row] = await db
		.select({ id: version.id })
		.from(version)
		.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
	if (!row) throw new Problem('not-found', `There is no version ${input.label}.`);
	return nameOf({ kind: 'marks', document: input.document, label: input.label });
}

export const markRoom = defineView({
	name: 'markRoom',
	summary: 'How you may mark up a version now: not at all, with marks of your own, or all of them',
	path: '/documents/{document}/versions/{label}/marks/room',
	input: versionInput,
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	async run({ db, project, level, reach }, input) {
		return {
			room: await roomOf(db, input),
			projectId: project.id,
			mode: marksMode(level),
			departments: [...reach.subject.departments]
		};
	}
});

export const marks = defineView({
	name: 'marks',
	summary: 'The marks on a version, and the scales of its pages',
	path: '/documents/{document}/versions/{label}/marks',
	input: versionInput,
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	async run({ db, services }, input) {
		return readMarks(services.rooms, await roomOf(db, input));
	}
});
