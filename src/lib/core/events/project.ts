import * as z from 'zod/mini';
import { event } from './event';

export const departmentMade = event('department.made', {
	details: z.strictObject({ code: z.string(), name: z.string() }),
	touches: ['people', 'project'],
	says: (d) => `made the department ${d.name}`
});

export const groupChanged = event('group.changed', {
	details: z.strictObject({ name: z.string(), before: z.string(), people: z.number() }),
	touches: ['people'],
	says: (d) => `changed the group ${d.name}`
});

export const groupEnded = event('group.ended', {
	details: z.strictObject({ name: z.string(), grants: z.number() }),
	touches: ['people'],
	says: (d) => `ended the group ${d.name}`
});

export const groupMade = event('group.made', {
	details: z.strictObject({ name: z.string(), people: z.number() }),
	touches: ['people'],
	says: (d) => `made the group ${d.name}`
});

export const personAdded = event('person.added', {
	details: z.strictObject({
		person: z.string(),
		name: z.string(),
		department: z.nullable(z.string()),
		lead: z.boolean(),
		controller: z.boolean(),
		outside: z.boolean()
	}),
	touches: ['people'],
	says: (d) => `added ${d.name} to the project`
});

export const personBlocked = event('person.blocked', {
	details: z.strictObject({ person: z.string(), name: z.string(), reason: z.string() }),
	touches: ['people'],
	says: (d) => `keeps ${d.name} out for the time being: ${d.reason}`
});

export const personInvited = event('person.invited', {
	details: z.strictObject({ person: z.string(), name: z.string() }),
	touches: ['people'],
	says: (d) => `invited ${d.name} again`
});

export const personLeft = event('person.left', {
	details: z.strictObject({
		person: z.string(),
		name: z.string(),
		reason: z.string(),
		locks: z.number(),
		passes: z.number(),
		grants: z.number(),
		closed: z.boolean(),
		/** Their desk became a shelf of the project. */
		desk: z.optional(z.boolean())
	}),
	touches: ['people', 'places'],
	says: (d) => `closed ${d.name}, who left: ${d.reason}`
});

export const personMoved = event('person.moved', {
	details: z.strictObject({
		person: z.string(),
		name: z.string(),
		from: z.string(),
		to: z.string(),
		controller: z.boolean()
	}),
	touches: ['people'],
	says: (d) => `put ${d.name} from ${d.from} into ${d.to}`
});

export const personMovedInside = event('person.moved-inside', {
	details: z.strictObject({ person: z.string(), name: z.string() }),
	touches: ['people'],
	says: (d) => `made ${d.name}, who was outside, a colleague`
});

export const personRenamed = event('person.renamed', {
	details: z.strictObject({ person: z.string(), name: z.string(), before: z.string() }),
	touches: ['people'],
	says: (d) => `is called ${d.name} now, before ${d.before}`
});

export const personUnblocked = event('person.unblocked', {
	details: z.strictObject({ person: z.string(), name: z.string() }),
	touches: ['people'],
	says: (d) => `let ${d.name} back in`
});

export const projectMade = event('project.made', {
	details: z.strictObject({ code: z.string(), name: z.string() }),
	touches: ['project'],
	says: (d) => `made the project ${d.name}`
});

export const projectSchemeChanged = event('project.scheme-changed', {
	details: z.strictObject({ before: z.array(z.string()), after: z.array(z.string()), note: z.string() }),
	touches: ['project'],
	says: () => 'changed the revision scheme of the project'
});

/** What settings are called where it is told that they were changed. */
const SETTING: Record<string, string> = {
	outsideLevel: 'how far people outside may go',
	manageNeedsTwoStep: 'two-step sign-in for Manage',
	lockLimitDays: 'how many days locks last',
	retentionDays: 'for how many days removed things can be restored',
	maxFileBytes: 'the largest file in bytes',
	keepPosition: 'the position of photographs',
	stamps: 'the stamps',
	ownDomains: 'mail domains of the organisation',
	releasePurposes: 'purposes that need a release',
	publishingPurposes: 'purposes that make documents Published',
	suitability: 'status codes of purposes',
	titleBlock: 'the place of the title block',
	workCalendar: 'working days and holidays',
	copyStamp: 'the stamp on outgoing copies',
	reminders: 'when recipients are reminded',
	mailSender: 'the sender of mails',
	stages: 'the stages of the register',
	approveOwn: 'whether those who made a release may approve it',
	issueNeeds: 'what issuing a release asks for',
	answersDraw: 'whether who answers a release may draw on its sheets',
	routes: 'the routes of releases',
	distribution: 'the distribution list',
	registerReport: 'the weekly report of the register'
};
const wordOf = (value: unknown): string =>
	typeof value === 'boolean' ? (value ? 'yes' : 'no') : value === null ? 'nothing' : String(value);

export const projectSettingsChanged = event('project.settings-changed', {
	/** What they became, each by its name, and what they were `before`; older events lack that. */
	details: z.looseObject({ before: z.record(z.string(), z.unknown()) }),
	touches: ['project'],
	says: ({ before, ...after }) => {
		const said = Object.keys(SETTING)
			.filter((name) => name in after)
			.map((name) => {
				const [is, was] = [after[name], before?.[name]];
				return !before || [is, was].some((one) => typeof one === 'object' && one !== null)
					? SETTING[name]
					: `${SETTING[name]} from ${wordOf(was)} to ${wordOf(is)}`;
			});
		return said.length ? `changed ${said.join(', ')}` : 'changed the settings of the project';
	}
});

export const projectNumberingChanged = event('project.numbering-changed', {
	/** An example of each, and the whole rules. */
	details: z.strictObject({ before: z.string(), after: z.string(), rule: z.unknown(), was: z.unknown() }),
	touches: ['project'],
	says: (d) => `changed how documents are numbered, from ${d.before} to ${d.after}`
});

export const recipientAdded = event('recipient.added', {
	details: z.strictObject({ name: z.string(), company: z.string() }),
	touches: ['people'],
	says: (d) => `put ${d.name}, ${d.company}, on the distribution list`
});
