import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import * as contract from '../../contract/marks';
import { versionInput } from '../../contract/marks';
import { marksMode } from '../../core/live/live';
import { Problem } from '../../core/acts/problem';
import { answers } from '../platform/runner/act';
import type { Querier } from '../platform/db';
import { version } from '../platform/db/schema';
import { nameOf } from '../live/rooms/names';
import { readMarks } from './read';

/** The room of the marks on a version. Raises `not-found` when there is no such version. */
async function roomOf(db: Querier, input: z.output<typeof versionInput>): Promise<string> {
	const [row] = await db
		.select({ id: version.id })
		.from(version)
		.where(and(eq(version.documentId, input.document), eq(version.label, input.label)));
	if (!row) throw new Problem('not-found', `There is no version ${input.label}.`);
	return nameOf({ kind: 'marks', document: input.document, label: input.label });
}

export const markRoom = answers(contract.markRoom, {
	async run({ db, project, level, reach }, input) {
		return {
			room: await roomOf(db, input),
			projectId: project.id,
			mode: marksMode(level),
			departments: [...reach.subject.departments]
		};
	}
});

export const marks = answers(contract.marks, {
	async run({ db, services }, input) {
		return readMarks(services.rooms, await roomOf(db, input));
	}
});
