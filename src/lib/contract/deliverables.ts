import { z } from 'zod';
import { MOST_STAGES, MOST_WEIGHT } from '../core/register';
import { act, done, view } from './act';
import { day, id, name, number, projectKey, reason } from './fields';
import { column, stageKey } from './shapes/register';

/** Most deliverables that one act takes: those of a large project. */
export const MOST_DELIVERABLES = 20_000;
/** Most lines of a list that is taken in at a time. */
export const MOST_LINES = 20_000;

const weight = z
	.number()
	.positive('A weight is above 0.')
	.max(MOST_WEIGHT, `A weight is at most ${MOST_WEIGHT.toLocaleString('en')}.`);
const ids = z.array(id).min(1, 'Choose at least one deliverable.').max(MOST_DELIVERABLES);
/** What a deliverable is, as it is put in the register. */
const asked = {
	number,
	title: name,
	/** Left out for the project's own. */
	department: id.nullable().default(null),
	responsible: id.nullable().default(null),
	weight: weight.default(1),
	/** By stage; null for a stage that belongs to the plan without a day yet. */
	planned: z.record(stageKey, day.nullable()).default({})
};

export const addDeliverables = act({
	name: 'addDeliverables',
	summary: 'Put deliverables in the register, all or none; their numbers are reserved',
	method: 'POST',
	path: '/projects/{project}/deliverables',
	input: z.strictObject({
		project: projectKey,
		deliverables: z.array(z.strictObject(asked)).min(1).max(1_000, 'At most 1,000 at a time.')
	}),
	output: z.strictObject({ ids: z.array(z.string()) }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.added']
});

export const changeDeliverables = act({
	name: 'changeDeliverables',
	summary: 'Change deliverables, one or many alike; what is not named stays as it is',
	method: 'PATCH',
	path: '/projects/{project}/deliverables',
	input: z.strictObject({
		project: projectKey,
		deliverables: ids,
		/** For one alone. */
		number: number.optional(),
		title: name.optional(),
		department: id.nullable().optional(),
		responsible: id.nullable().optional(),
		weight: weight.optional(),
		/** Stages that join the plan without a day, and those that leave it with their days. */
		addStages: z.array(stageKey).max(MOST_STAGES).default([]),
		dropStages: z.array(stageKey).max(MOST_STAGES).default([])
	}),
	output: z.strictObject({ changed: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.changed']
});

export const movePlanned = act({
	name: 'movePlanned',
	summary: 'Move planned days of deliverables: by working days of the project, or to a day',
	method: 'POST',
	path: '/projects/{project}/deliverables/planned',
	input: z
		.strictObject({
			project: projectKey,
			deliverables: ids,
			/** One stage, or all that are not met. */
			stage: stageKey.nullable().default(null),
			/** Working days, earlier when negative. */
			by: z.number().int().min(-1_000).max(1_000).optional(),
			/** For one stage: the day itself; null for none yet. */
			to: day.nullable().optional(),
			reason
		})
		.refine((i) => (i.by === undefined) !== (i.to === undefined), {
			message: 'Say by how many days, or to which day.',
			path: ['by']
		})
		.refine((i) => i.to === undefined || i.stage !== null, {
			message: 'A day is set for one stage.',
			path: ['stage']
		}),
	output: z.strictObject({ moved: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.moved']
});

export const setForecast = act({
	name: 'setForecast',
	summary:
		'Say when a stage of a deliverable is expected, with a reason; for its responsible person, leads of its department and controllers. The forecast by the rule stays beside it',
	method: 'PUT',
	path: '/projects/{project}/deliverables/{deliverable}/forecast',
	input: z.strictObject({
		project: projectKey,
		deliverable: id,
		stage: stageKey,
		/** Null takes it back. */
		day: day.nullable(),
		reason
	}),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['register.forecast']
});

export const correctActual = act({
	name: 'correctActual',
	summary: 'Correct the day on which a stage was met, with a reason; the trail goes on saying what it said',
	method: 'PUT',
	path: '/projects/{project}/deliverables/{deliverable}/actual',
	input: z.strictObject({
		project: projectKey,
		deliverable: id,
		stage: stageKey,
		/** Null takes the correction back. */
		day: day.nullable(),
		reason
	}),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.corrected']
});

export const removeDeliverables = act({
	name: 'removeDeliverables',
	summary: 'Take deliverables out of the register; their documents stay, and they can be put back',
	method: 'POST',
	path: '/projects/{project}/deliverables/removed',
	input: z.strictObject({ project: projectKey, deliverables: ids, reason }),
	output: z.strictObject({ removed: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.removed']
});

export const restoreDeliverables = act({
	name: 'restoreDeliverables',
	summary: 'Put deliverables back in the register that were taken out',
	method: 'POST',
	path: '/projects/{project}/deliverables/restored',
	input: z.strictObject({ project: projectKey, deliverables: ids }),
	output: z.strictObject({ restored: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.restored']
});

const cell = z.string().max(1_000, 'A cell is longer than 1,000 characters.');
/** So many changes of lines are told one by one; the rest is counted. */
export const FATES_TOLD = 500;

export const importDeliverables = act({
	name: 'importDeliverables',
	summary: 'Take in a list of deliverables, or only try it: what becomes of each line',
	method: 'POST',
	path: '/projects/{project}/deliverables/list',
	input: z.strictObject({
		project: projectKey,
		/** Name of the file, for the trail. */
		file: name,
		heads: z.array(cell).min(1).max(100),
		/** What each column holds; null for what is left out. */
		columns: z.array(column.nullable()).min(1).max(100),
		rows: z.array(z.array(cell).max(100)).min(1).max(MOST_LINES, 'At most 20,000 lines at a time.'),
		/** Lines that cannot be taken in are left out; otherwise one of them keeps all from it. */
		leaveOut: z.boolean().default(false),
		/** Nothing is changed; it is only told what becomes of each line. */
		trial: z.boolean().default(false)
	}),
	output: z.strictObject({
		added: z.number(),
		changed: z.number(),
		same: z.number(),
		refused: z.number(),
		/** Lines that are not the same, those that are refused first; so many at most. */
		lines: z
			.array(
				z.strictObject({
					/** Counted from 1, without the heads. */
					line: z.number(),
					fate: z.enum(['new', 'changed', 'refused']),
					number: z.string(),
					why: z.string(),
					changes: z.array(z.strictObject({ what: z.string(), from: z.string(), to: z.string() }))
				})
			)
			.max(FATES_TOLD)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.imported']
});

/** Most deliverables of a template. */
export const MOST_OF_TEMPLATE = 500;

export const keepTemplate = act({
	name: 'keepTemplate',
	summary:
		'Keep deliverables as a template under a name: their titles, what their numbers say, and how far apart their days are',
	method: 'PUT',
	path: '/projects/{project}/register/templates',
	input: z.strictObject({
		project: projectKey,
		name,
		deliverables: ids.max(MOST_OF_TEMPLATE, `At most ${MOST_OF_TEMPLATE} deliverables.`)
	}),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.template-kept']
});

export const endTemplate = act({
	name: 'endTemplate',
	summary: 'End a template of the register',
	method: 'DELETE',
	path: '/projects/{project}/register/templates/{template}',
	input: z.strictObject({ project: projectKey, template: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.template-ended']
});

export const registerTemplates = view({
	name: 'registerTemplates',
	summary: 'The templates of the register',
	path: '/projects/{project}/register/templates',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		templates: z.array(z.strictObject({ id: z.string(), name: z.string(), deliverables: z.number() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const addFromTemplate = act({
	name: 'addFromTemplate',
	summary:
		'Put the deliverables of a template in the register, with the next free numbers and days from a beginning on; or only try it',
	method: 'POST',
	path: '/projects/{project}/register/templates/{template}/deliverables',
	input: z.strictObject({
		project: projectKey,
		template: id,
		department: id.nullable().default(null),
		responsible: id.nullable().default(null),
		/** What numbers shall say other than the template, by the keys of the numbering rule. */
		parts: z.record(z.string().max(40), z.string().trim().min(1).max(8)).default({}),
		/** The day on which the work begins. */
		begins: day,
		/** Nothing is changed; it is only told what would be put in. */
		trial: z.boolean().default(false)
	}),
	output: z.strictObject({
		deliverables: z.array(
			z.strictObject({
				number: z.string(),
				title: z.string(),
				planned: z.record(z.string(), z.string().nullable())
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['register.added']
});
