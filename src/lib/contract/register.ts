import { z } from 'zod';
import { GROUPINGS, ORDERS } from '../core/register';
import { VERDICTS } from '../core/releases';
import { PURPOSES } from '../core/revisions/revisions';
import { act, done, view } from './act';
import { flag, id, moment, name, note, projectKey } from './fields';
import { column, narrowed, registerCounts, registerLine, spread, stages } from './shapes/register';

export const register = view({
	name: 'register',
	summary: 'Deliverables of a project with where each stands; narrowed, in an order, in pages',
	path: '/projects/{project}/register',
	input: z.strictObject({
		project: projectKey,
		...narrowed,
		order: z.enum(ORDERS).default('number'),
		down: flag,
		group: z.enum(GROUPINGS).default('none'),
		/** How many lines to go past. */
		skip: z.coerce.number().int().min(0).max(1_000_000).default(0),
		limit: z.coerce.number().int().min(1).max(1_000).default(200)
	}),
	output: z.strictObject({
		stages,
		/** Of everything that is left when narrowed by department, zone, type, stage, person and words. */
		counts: registerCounts,
		/** Whether whoever asks is told which numbers are missing: those are who may add documents. */
		tellsMissing: z.boolean(),
		/** How many lines there are, narrowed by everything. */
		total: z.number(),
		/** First and last day of all that is planned, met and expected in these lines. */
		span: z.strictObject({ from: z.string(), to: z.string() }).nullable(),
		rows: z.array(registerLine),
		/** How many lines stand under each head, where they stand in groups. */
		groups: z.array(z.strictObject({ head: z.string(), count: z.number() })),
		/** What the list can be narrowed to. */
		zones: z.array(z.string()),
		types: z.array(z.string()),
		people: z.array(z.strictObject({ id: z.string(), name: z.string() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const registerFigures = view({
	name: 'registerFigures',
	summary: 'Curves, progress, durations, verdicts and load of the register; narrowed as its list',
	path: '/projects/{project}/register/figures',
	input: z.strictObject({ project: projectKey, ...narrowed }),
	output: z.strictObject({
		/** Weight that is planned, issued and expected by each day. */
		curves: z.strictObject({
			days: z.array(z.string()),
			planned: z.array(z.number()),
			actual: z.array(z.number().nullable()),
			forecast: z.array(z.number().nullable()),
			total: z.number(),
			unplanned: z.number(),
			unexpected: z.number()
		}),
		/** Weight of what is met, late, and all, by department. */
		departments: z.array(
			z.strictObject({
				department: z.string().nullable(),
				met: z.number(),
				late: z.number(),
				all: z.number()
			})
		),
		/** How long each step took, in working days; the first from the first version. */
		steps: z.array(z.strictObject({ stage: z.string(), ...spread.shape })),
		/** How long signed replies took. */
		replies: z.strictObject(spread.shape),
		/** How many replies are overdue. */
		overdue: z.number(),
		verdicts: z.array(
			z.strictObject({ month: z.string(), A: z.number(), B: z.number(), C: z.number(), D: z.number() })
		),
		/** What falls due in each of the weeks to come, and how many a week were met lately. */
		weeks: z.array(z.strictObject({ week: z.string(), due: z.number() })),
		managed: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const registerGaps = view({
	name: 'registerGaps',
	summary: 'What the register misses: numbers within its series, documents that nobody planned',
	path: '/projects/{project}/register/gaps',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		numbers: z.array(z.strictObject({ from: z.string(), to: z.string(), count: z.number() })).max(1_000),
		/** How many numbers these are. */
		missing: z.number(),
		documents: z
			.array(
				z.strictObject({
					id: z.string(),
					number: z.string(),
					title: z.string(),
					department: z.string().nullable(),
					type: z.string()
				})
			)
			.max(2_000),
		unplanned: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const deliverable = view({
	name: 'deliverable',
	summary: 'One deliverable with where it stands and what happened to it; by its id or its number',
	path: '/projects/{project}/deliverables/{deliverable}',
	input: z.strictObject({ project: projectKey, deliverable: z.string().min(1).max(60) }),
	output: z.strictObject({
		...registerLine.shape,
		/** Names of its stages, by their keys. */
		names: z.record(z.string(), z.string()),
		/** Actual days that were corrected, with what the trail says. */
		corrected: z.array(
			z.strictObject({ stage: z.string(), day: z.string(), reason: z.string(), by: z.string() })
		),
		history: z.array(
			z.strictObject({
				at: moment,
				by: z.string().nullable(),
				kind: z.string(),
				reason: z.string(),
				changes: z.array(z.strictObject({ what: z.string(), from: z.string(), to: z.string() }))
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const registerColumns = view({
	name: 'registerColumns',
	summary: 'How columns of lists that were taken in before were matched, by their heads in small letters',
	path: '/projects/{project}/register/columns',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({ columns: z.record(z.string(), column.nullable()) }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const keepRegisterChoice = act({
	name: 'keepRegisterChoice',
	summary: 'Keep what a list of the register is narrowed to under a name: for yourself, or for the project',
	method: 'PUT',
	path: '/projects/{project}/register/choices',
	input: z.strictObject({
		project: projectKey,
		name,
		/** The query of the page. */
		query: note.refine((text) => text.length <= 1_000, 'At most 1,000 characters.'),
		/** For everybody in the project; controllers only. */
		shared: z.boolean().default(false)
	}),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['register.choice-kept']
});

export const endRegisterChoice = act({
	name: 'endRegisterChoice',
	summary: 'End a kept choice of the register',
	method: 'DELETE',
	path: '/projects/{project}/register/choices/{choice}',
	input: z.strictObject({ project: projectKey, choice: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['register.choice-ended']
});

export const registerChoices = view({
	name: 'registerChoices',
	summary: 'Choices of the register that are kept: your own, and those of the project',
	path: '/projects/{project}/register/choices',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		choices: z.array(
			z.strictObject({ id: z.string(), name: z.string(), query: z.string(), shared: z.boolean() })
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

/** The moment and the number of the last row that is known. */
const AFTER = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z ./;

export const issued = view({
	name: 'issued',
	summary: 'The revision of each document that was issued last, newest first; in pages',
	path: '/projects/{project}/issued',
	input: z.strictObject({
		project: projectKey,
		/** What the page before said to ask on with. */
		after: z
			.string()
			.max(240)
			.refine(
				(text) => AFTER.test(text) && !Number.isNaN(Date.parse(text.split(' ', 1)[0]!)),
				'Ask on with what the page before said.'
			)
			.optional(),
		limit: z.coerce.number().int().min(1).max(1_000).default(200)
	}),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				document: z.string(),
				number: z.string(),
				title: z.string(),
				/** Code of the department whose shelf it stands on. */
				department: z.string().nullable(),
				label: z.string(),
				at: moment,
				by: z.string().nullable(),
				/** The release it went out with; nobody outside has it when there is none. */
				release: z
					.strictObject({
						number: z.number(),
						purpose: z.enum(PURPOSES),
						to: z.string(),
						replyBy: z.string().nullable()
					})
					.nullable(),
				verdict: z.enum(VERDICTS).nullable(),
				/** The newest version, when there is work after the issue. */
				since: z.string().nullable()
			})
		),
		/** What to ask on with; left out when these are the last. */
		next: z.string().optional()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});
