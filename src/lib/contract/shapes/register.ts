import { z } from 'zod';
import { MOST_STAGES, SPANS, WIDEST_GAP, type Basis, type Status } from '../../core/register';
import type { ColumnOf } from '../../core/register/import';
import { VERDICTS } from '../../core/releases';
import { PURPOSES } from '../../core/revisions/revisions';
import { day, flag, id, moment, name, several } from '../fields';

export const stageKey = z.string().trim().min(1).max(40);
const code = z.string().max(20);
const statuses = ['none', 'work', 'with-client', 'returned', 'done'] as const satisfies readonly Status[];
const bases = ['plan', 'slip', 'usual', 'before', 'today'] as const satisfies readonly Basis[];

/** A stage of the project. */
const stage = z.strictObject({ key: stageKey, name, purpose: z.enum(PURPOSES) });
export const stages = z.array(stage).min(1).max(MOST_STAGES);

/** What a column of a list holds. */
export const column = z
	.string()
	.max(60)
	.refine(
		(text): text is ColumnOf =>
			/^(number|title|department|responsible|weight)$/.test(text) || /^planned:.+/.test(text),
		'This is no column of the register.'
	);

/** What a list of the register is narrowed to. */
export const narrowed = {
	departments: several(code, 100),
	zones: several(code, 200),
	types: several(code, 100),
	stage: stageKey.optional(),
	late: flag,
	wasLate: flag,
	met: flag,
	statuses: several(z.enum(statuses), statuses.length),
	undated: flag,
	/** Numbers are missing after its own in its series. */
	missing: flag,
	from: day.optional(),
	to: day.optional(),
	/** Ids of people. */
	responsible: several(id, 200),
	words: z.string().max(200).default('')
};

const standing = z.strictObject({
	stage: z.string(),
	planned: z.string().nullable(),
	actual: z.string().nullable(),
	forecast: z.string().nullable(),
	rule: z.strictObject({ day: z.string(), basis: z.enum(bases) }).nullable(),
	own: z.strictObject({ day: z.string(), reason: z.string(), by: z.string(), at: moment }).nullable(),
	slip: z.number().nullable()
});

export const registerCounts = z.strictObject({
	deliverables: z.number(),
	met: z.number(),
	wasLate: z.number(),
	late: z.number(),
	none: z.number(),
	withClient: z.number(),
	returned: z.number(),
	done: z.number(),
	undated: z.number(),
	missing: z.number()
});

export const registerLine = z.strictObject({
	id: z.string(),
	number: z.string(),
	title: z.string(),
	department: z.string().nullable(),
	zone: z.string(),
	type: z.string(),
	responsible: z.strictObject({ id: z.string(), name: z.string() }).nullable(),
	weight: z.number(),
	status: z.enum(statuses),
	document: z
		.strictObject({
			id: z.string(),
			label: z.string(),
			issued: z.boolean(),
			/** Who has it in hand. */
			inHand: z.string().nullable(),
			reply: z
				.strictObject({
					release: z.number(),
					to: z.string(),
					by: z.string().nullable(),
					verdict: z.enum(VERDICTS).nullable()
				})
				.nullable()
		})
		.nullable(),
	stages: z.array(standing),
	/** Slip of the stage that one looks at, in working days. */
	slip: z.number().nullable(),
	/** The numbers between its own and the next of its series that nobody uses. */
	missingAfter: z.array(z.string()).max(WIDEST_GAP),
	/** Whether whoever asks may say when it is expected. */
	mayForecast: z.boolean()
});

export const spread = z.strictObject({
	count: z.number(),
	median: z.number().nullable(),
	longest: z.number().nullable(),
	/** How many took up to each of 5, 10, 15, 20 and 30 working days, and how many longer. */
	spans: z.array(z.number()).length(SPANS.length + 1)
});
