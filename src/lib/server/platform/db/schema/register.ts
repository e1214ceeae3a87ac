import { sql } from 'drizzle-orm';
import {
	boolean,
	doublePrecision,
	index,
	jsonb,
	pgTable,
	primaryKey,
	text,
	uniqueIndex
} from 'drizzle-orm/pg-core';
import type { TemplateLine } from '../../../../core/register';
import { created, oneOf, time } from './columns';
import { person } from './people';
import { department, project } from './project';

/** What can happen to a deliverable, as its own history tells it. */
export const DELIVERABLE_CHANGES = [
	'added',
	'changed',
	'moved',
	'forecast',
	'corrected',
	'removed',
	'restored'
] as const;

/** A line of the register (G1). Its document is the live one with its number. */
export const deliverable = pgTable(
	'deliverable',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		number: text().notNull(),
		title: text().notNull(),
		departmentId: text('department_id').references(() => department.id),
		responsibleId: text('responsible_id').references(() => person.id),
		weight: doublePrecision().notNull().default(1),
		/** When it was taken out of the register; its number is free again. */
		removedAt: time('removed_at'),
		createdBy: text('created_by').references(() => person.id),
		createdAt: created()
	},
	(t) => [
		uniqueIndex('deliverable_number')
			.on(t.projectId, t.number)
			.where(sql`removed_at is null`)
	]
);

/** What is planned of a deliverable for one stage of the project. Days are YYYY-MM-DD. */
export const deliverableStage = pgTable(
	'deliverable_stage',
	{
		deliverableId: text('deliverable_id')
			.notNull()
			.references(() => deliverable.id),
		/** Key of the stage. */
		stage: text().notNull(),
		planned: text(),
		/** A forecast that somebody made; the one by the rule is never kept. */
		ownDay: text('own_day'),
		ownReason: text('own_reason'),
		ownBy: text('own_by').references(() => person.id),
		ownAt: time('own_at'),
		/** The actual day as it was corrected; the one that the trail tells is never kept. */
		correctedDay: text('corrected_day'),
		correctedReason: text('corrected_reason'),
		correctedBy: text('corrected_by').references(() => person.id)
	},
	(t) => [primaryKey({ columns: [t.deliverableId, t.stage] })]
);

/** What happened to a deliverable: an act over many writes one event, and a row here for each of them. */
export const deliverableChange = pgTable(
	'deliverable_change',
	{
		id: text().primaryKey(),
		deliverableId: text('deliverable_id')
			.notNull()
			.references(() => deliverable.id),
		kind: text({ enum: DELIVERABLE_CHANGES }).notNull(),
		at: time('at').notNull(),
		by: text('by_id').references(() => person.id),
		reason: text().notNull(),
		/** Values that became others, by what they are of. */
		changes: jsonb().$type<{ what: string; from: string; to: string }[]>().notNull()
	},
	(t) => [oneOf(t.kind, DELIVERABLE_CHANGES), index('deliverable_change_of').on(t.deliverableId, t.at)]
);

/** What a list of the register is narrowed to, kept under a name: for oneself, or for everybody in the project. */
export const registerChoice = pgTable(
	'register_choice',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		shared: boolean().notNull(),
		name: text().notNull(),
		nameKey: text('name_key').notNull(),
		/** The query of the page. */
		query: text().notNull(),
		createdAt: created()
	},
	(t) => [
		uniqueIndex('register_choice_name').on(
			t.projectId,
			sql`(case when shared then '' else person_id end)`,
			t.nameKey
		)
	]
);

/** Deliverables that come again with each piece of work of a kind, kept under a name. */
export const registerTemplate = pgTable(
	'register_template',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		name: text().notNull(),
		nameKey: text('name_key').notNull(),
		lines: jsonb().$type<TemplateLine[]>().notNull(),
		createdAt: created()
	},
	(t) => [uniqueIndex('register_template_name').on(t.projectId, t.nameKey)]
);
