import { z } from 'zod';
import { LEVELS } from '../core/access/levels';
import { FARTHEST_REMINDER, ISSUE_NEEDS, MOST_REMINDERS } from '../core/releases';
import { MOST_REPORTED } from '../core/register';
import { PURPOSES } from '../core/revisions/revisions';
import { WEEKDAYS } from '../core/time/working-days';
import { act, view } from './act';
import { email, name, projectKey } from './fields';
import { workCalendar } from './shapes/calendar';
import { stages } from './shapes/register';
import { distribution } from './shapes/distribution';
import { suitability } from './shapes/releases';
import { routes } from './shapes/routes';
import { numberingRule, numberPart } from './shapes/numbering';

const domain = z
	.string()
	.trim()
	.toLowerCase()
	.regex(/^(?=.{3,200}$)[a-z0-9-]+(\.[a-z0-9-]+)+$/, 'Give a mail domain, such as vennholm.example.');

const share = z.number().min(0).max(1);

/** So many numbers that do not fit are named. */
export const MISFITS_NAMED = 20;

export const changeNumbering = act({
	name: 'changeNumbering',
	summary:
		'Change how documents are numbered, or only try it: how many numbers of today do not fit. Documents keep the numbers they have',
	method: 'PUT',
	path: '/projects/{project}/numbering-rule',
	input: z.strictObject({
		project: projectKey,
		rule: z.strictObject({
			...numberingRule.shape,
			parts: z
				.array(
					z.strictObject({
						...numberPart.shape,
						key: z.string().min(1).max(40),
						label: z.string().max(40),
						values: z
							.array(z.strictObject({ code: z.string().max(8), name: z.string().max(80) }))
							.max(200)
							.nullable()
					})
				)
				.max(10)
		}),
		/** Nothing is changed; it is only told what would not fit. */
		trial: z.boolean().default(false)
	}),
	output: z.strictObject({
		/** Numbers of documents that are not removed. */
		numbers: z.number(),
		misfits: z.number(),
		/** The first of those that do not fit, with why. */
		named: z.array(z.strictObject({ number: z.string(), why: z.string() })).max(MISFITS_NAMED)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['project.numbering-changed']
});

/** Working days before or after a date on which somebody is reminded. */
const rhythm = z
	.array(
		z
			.number()
			.int()
			.min(1, 'Days are counted from 1.')
			.max(FARTHEST_REMINDER, `At most ${FARTHEST_REMINDER} working days away.`)
	)
	.max(MOST_REMINDERS, `At most ${MOST_REMINDERS} reminders.`);

const suitabilityCodes = z.strictObject({
	information: suitability,
	comment: suitability,
	approval: suitability,
	construction: suitability,
	'as-built': suitability
});

export const changeSettings = act({
	name: 'changeSettings',
	summary:
		'Set how a project works: how far people outside may go, what Manage needs, how long locks and removed things last, days off, stamps, reminders; or only try it',
	method: 'PATCH',
	path: '/projects/{project}/settings',
	input: z.strictObject({
		project: projectKey,
		outsideLevel: z.enum(LEVELS).nullable().optional(),
		manageNeedsTwoStep: z.boolean().optional(),
		/** Days after which a lock without an end of its own is stale. */
		lockLimitDays: z.number().int().min(1).max(90).optional(),
		/** Days for which what is removed can be restored. */
		retentionDays: z.number().int().min(1).max(3650).optional(),
		/** Largest file, in bytes. */
		maxFileBytes: z
			.number()
			.int()
			.min(1_000_000)
			.max(200 * 1024 ** 3)
			.optional(),
		keepPosition: z.boolean().optional(),
		ownDomains: z.array(domain).max(40).optional(),
		releasePurposes: z.array(z.enum(PURPOSES)).max(PURPOSES.length).optional(),
		/** What documents may be used for, by purpose: shown on lists, cover notes and in packages. */
		suitability: suitabilityCodes.optional(),
		/** Purposes whose issue makes a document Published; the others make it Shared. */
		publishingPurposes: z.array(z.enum(PURPOSES)).max(PURPOSES.length).optional(),
		titleBlock: z
			.strictObject({ left: share, top: share, right: share, bottom: share })
			.refine((a) => a.left < a.right && a.top < a.bottom, 'The place of the title block is empty.')
			.optional(),
		stamps: z.array(name).max(40, 'At most 40 stamps.').optional(),
		workCalendar: workCalendar.optional(),
		/** Words that stand before holder and day in the stamp on copies that go out through passes. */
		copyStamp: z.string().trim().max(60).optional(),
		reminders: z.strictObject({ receipt: rhythm, before: rhythm, after: rhythm }).optional(),
		/** Under which name mails of the project go out, and who gets the answers. */
		mailSender: z
			.strictObject({ name: z.string().trim().max(80), replyTo: email.or(z.literal('')) })
			.optional(),
		/** On which day of the week the register goes out as a report, and to whom. */
		registerReport: z
			.strictObject({
				weekday: z.enum(WEEKDAYS).nullable(),
				to: z.array(email).max(MOST_REPORTED, `At most ${MOST_REPORTED} addresses.`)
			})
			.optional(),
		/** The stages that deliverables pass, in their order. */
		stages: stages.optional(),
		/** Whether who built, changed or asked for a release may approve it. */
		approveOwn: z.boolean().optional(),
		/** What issuing a release asks of who does it: its number, typed, or a code of their two-step sign-in. */
		issueNeeds: z.enum(ISSUE_NEEDS).optional(),
		/** Whether who answers a release may draw on its sheets. */
		answersDraw: z.boolean().optional(),
		/** Routes that releases are built with. */
		routes: routes.optional(),
		/** Who gets releases, by rule. */
		distribution: distribution.optional(),
		/** Nothing is changed; it is only told what would come of it. */
		trial: z.boolean().default(false)
	}),
	output: z.strictObject({
		/** What comes of it, a sentence each. */
		effects: z.array(z.string())
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['project.settings-changed']
});

export const settings = view({
	name: 'settings',
	summary:
		'Settings of a project that only its controllers need: reminders, the sender of its mails, stamps on copies',
	path: '/projects/{project}/settings',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		copyStamp: z.string(),
		publishingPurposes: z.array(z.enum(PURPOSES)),
		suitability: suitabilityCodes,
		stages,
		approveOwn: z.boolean(),
		issueNeeds: z.enum(ISSUE_NEEDS),
		answersDraw: z.boolean(),
		routes,
		distribution,
		registerReport: z.strictObject({ weekday: z.enum(WEEKDAYS).nullable(), to: z.array(z.string()) }),
		reminders: z.strictObject({
			receipt: z.array(z.number()),
			before: z.array(z.number()),
			after: z.array(z.number())
		}),
		mailSender: z.strictObject({ name: z.string(), replyTo: z.string() }),
		/** What mails say of their sender when the project says nothing. */
		sends: z.strictObject({ name: z.string(), address: z.string() })
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

/** So many sheets are read at a place to show how it does. */
export const SHEETS_TRIED = 10;

export const titleBlocks = view({
	name: 'titleBlocks',
	summary:
		'The newest PDF sheets of a project that name themselves, with the words that could be their number or revision, to try a place of the title block on',
	path: '/projects/{project}/title-blocks',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		sheets: z
			.array(
				z.strictObject({
					document: z.string(),
					number: z.string(),
					title: z.string(),
					label: z.string(),
					/** Words that could be a number or a revision, with their middles in shares of the sheet. */
					words: z.array(z.strictObject({ text: z.string(), x: z.number(), y: z.number() })).max(300)
				})
			)
			.max(SHEETS_TRIED + 1)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});
