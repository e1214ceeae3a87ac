import {
	bigint,
	boolean,
	index,
	integer,
	jsonb,
	pgTable,
	primaryKey,
	text,
	uniqueIndex
} from 'drizzle-orm/pg-core';
import type { Level } from '../../../../core/access/levels';
import type { NumberingRule } from '../../../../core/numbering/numbering';
import type { ColumnOf } from '../../../../core/register/import';
import type { ReportPlan } from '../../../../core/register/report';
import type { Stage } from '../../../../core/register/stages';
import type {
	DistributionRule,
	IssueNeeds,
	ReminderRhythm,
	SuitabilityCodes
} from '../../../../core/releases';
import type { Purpose, RevisionScheme } from '../../../../core/revisions/revisions';
import type { SheetArea } from '../../../../core/documents/title-block';
import type { RouteTemplate } from '../../../../core/releases/route';
import type { WorkCalendar } from '../../../../core/time/working-days';
import { created, time } from './columns';
import { person } from './people';

export interface ProjectSettings {
	numbering: NumberingRule;
	revisions: RevisionScheme;
	/** Days after which a lock without an expected end counts as stale. */
	lockLimitDays: number;
	/** Days a removed place can be restored. */
	retentionDays: number;
	/** Largest file that may be added, in bytes. */
	maxFileBytes: number;
	/** How far people outside may go at most; null gives them nothing. */
	outsideLevel: Level | null;
	/** Whether Manage, and being a document controller, needs two-step sign-in. */
	manageNeedsTwoStep: boolean;
	/** Whether photographs keep where they were taken. */
	keepPosition: boolean;
	/** Names of the stamps that people put on sheets. */
	stamps: string[];
	/** Mail domains of the project's own organisation: who is invited from these is a colleague (A12). */
	ownDomains: string[];
	/** Purposes for which revisions are issued in releases only, and never by one person alone. */
	releasePurposes: Purpose[];
	/** Purposes whose issue makes a document Published; the usual ones where it was never said. */
	publishingPurposes?: Purpose[];
	/** Where the title block stands on a sheet, in shares of its width and height from the upper left corner. */
	titleBlock: SheetArea;
	/** The days that the project works on (G7); an ordinary week where it was never said. */
	workCalendar?: WorkCalendar;
	/** Words before holder and day in the stamp on copies that go out through passes. */
	copyStamp?: string;
	/** When recipients of releases are reminded (T13); the usual rhythm where it was never said. */
	reminders?: ReminderRhythm;
	/** The name under which mails go out, and who gets the answers; empty for Cupboard's own. */
	mailSender?: { name: string; replyTo: string };
	/** Whether those who made a release may approve it too (T3); not where it was never said. */
	approveOwn?: boolean;
	/** What issuing a release asks of who does it (T11): its typed number where it was never said. */
	issueNeeds?: IssueNeeds;
	/** Whether who answers a release may draw on its sheets (T5); they may where it was never said. */
	answersDraw?: boolean;
	/** Routes that releases are built with, by purpose. */
	routes?: RouteTemplate[];
	/** Who gets releases, by rule (T9). */
	distribution?: DistributionRule[];
	/** What documents may be used for, by purpose (code and words); the usual ones where it was never said. */
	suitability?: SuitabilityCodes;
	/** The stages that deliverables pass (G1); the usual ones where it was never said. */
	stages?: Stage[];
	/** How columns of lists that were taken in were matched by hand, by their heads. */
	registerColumns?: Record<string, ColumnOf | null>;
	/** When the register goes out as a report; never where it was never said. */
	registerReport?: ReportPlan;
}

export const project = pgTable('project', {
	id: text().primaryKey(),
	code: text().notNull().unique(),
	name: text().notNull(),
	client: text().notNull(),
	timeZone: text('time_zone').notNull(),
	settings: jsonb().$type<ProjectSettings>().notNull(),
	/** When the register went out as a report last. */
	registerReportedAt: time('register_reported_at'),
	nextRelease: integer('next_release').notNull().default(1),
	/** Another with every change of scopes or entries; triggers set it. */
	accessVersion: bigint('access_version', { mode: 'number' }).notNull().default(0),
	createdAt: created()
});

export const member = pgTable(
	'member',
	{
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		controller: boolean().notNull().default(false),
		/** Of another company: no department, and sees only what was given. */
		outside: boolean().notNull().default(false),
		leftAt: time('left_at'),
		/** Kept out for a time; everything that was given stays as it is. */
		blockedAt: time('blocked_at'),
		blockedReason: text('blocked_reason'),
		/** Changes before this moment are not new to the member. */
		seenUntil: time('seen_until').notNull().defaultNow(),
		createdAt: created()
	},
	(t) => [primaryKey({ columns: [t.projectId, t.personId] }), index('member_by_person').on(t.personId)]
);

export const department = pgTable(
	'department',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		code: text().notNull(),
		name: text().notNull(),
		position: integer().notNull(),
		createdAt: created()
	},
	(t) => [uniqueIndex('department_code').on(t.projectId, t.code)]
);

export const departmentMember = pgTable(
	'department_member',
	{
		departmentId: text('department_id')
			.notNull()
			.references(() => department.id),
		personId: text('person_id')
			.notNull()
			.references(() => person.id),
		lead: boolean().notNull().default(false)
	},
	(t) => [
		primaryKey({ columns: [t.departmentId, t.personId] }),
		index('department_member_by_person').on(t.personId)
	]
);

/** A named list of people across departments; a company is the list of its people outside. */
export const group = pgTable(
	'people_group',
	{
		id: text().primaryKey(),
		projectId: text('project_id')
			.notNull()
			.references(() => project.id),
		name: text().notNull(),
		nameKey: text('name_key').notNull(),
		company: boolean().notNull().default(false),
		createdAt: created()
	},
	(t) => [uniqueIndex('group_name').on(t.projectId, t.nameKey)]
);

export const groupMember = pgTable(
	'group_member',
	{
		groupId: text('group_id')
			.notNull()
			.references(() => group.id, { onDelete: 'cascade' }),
		personId: text('person_id')
			.notNull()
			.references(() => person.id)
	},
	(t) => [primaryKey({ columns: [t.groupId, t.personId] }), index('group_member_by_person').on(t.personId)]
);
