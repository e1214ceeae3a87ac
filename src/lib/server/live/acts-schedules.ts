import * as Y from 'yjs';
import { z } from 'zod';
import { columnSchema, MOST_COLUMNS, MOST_LETTERS, MOST_ROWS } from '../../core/schedule/column';
import { seedSchedule, type GivenSchedule } from '../../core/schedule/shared';
import { defineAct, type ContextOf } from '../platform/runner/act';
import { id, name, number, tags } from '../platform/runner/fields';
import { addLive, beginOnFile, cut, stateOf, type Cut } from './acts';

const cell = z.union([z.string().max(MOST_LETTERS), z.number()]).nullable();

/** Columns, and rows as values in the order of the columns. */
const scheduleInput = z
	.object({
		columns: z
			.array(columnSchema)
			.min(1, 'A schedule has at least one column.')
			.max(MOST_COLUMNS, `At most ${MOST_COLUMNS} columns.`),
		rows: z.array(z.array(cell).max(MOST_COLUMNS)).max(MOST_ROWS, `At most ${MOST_ROWS} rows.`)
	})
	.refine(
		({ columns }) => new Set(columns.map((c) => c.name.toLowerCase())).size === columns.length,
		'Two columns have the same name.'
	);

function seeded(given: GivenSchedule, { newId }: Pick<ContextOf['place'], 'newId'>): Y.Doc {
	const doc = new Y.Doc({ gc: false });
	seedSchedule(doc, given, newId);
	return doc;
}

export const addLiveSchedule = defineAct({
	name: 'addLiveSchedule',
	summary: 'Add a schedule to a folder that several edit at once, with its columns and first rows',
	method: 'POST',
	path: '/places/{folder}/live-schedules',
	input: z.strictObject({
		folder: id,
		number,
		title: name,
		tags: tags.default([]),
		schedule: scheduleInput,
		format: z.enum(['xlsx', 'ods', 'csv']).default('xlsx')
	}),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder', 'shelf'] },
	events: ['document.added'],
	prepare: (context, input) => cut(context, 'schedule', seeded(input.schedule, context), input, input.format),
	run: (context, input) =>
		addLive(context, 'schedule', context.prepared as Cut, { ...input, note: 'Begun as live schedule' })
});

export const workScheduleLive = defineAct({
	name: 'workScheduleLive',
	summary:
		'Work on a schedule live: its first sheet becomes editable by several at once, the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live/schedule',
	input: z.strictObject({ document: id, base: z.string().max(20), schedule: scheduleInput }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.begun'],
	async run(context, input) {
		await beginOnFile(context, 'schedule', input, stateOf(seeded(input.schedule, context)));
		return {};
	}
});
