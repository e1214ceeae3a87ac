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
		closed: z.boolean()
	}),
	touches: ['people'],
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

export const projectSettingsChanged = event('project.settings-changed', {
	details: z.looseObject({}),
	touches: ['project'],
	says: () => 'changed the settings of the project'
});

export const recipientAdded = event('recipient.added', {
	details: z.strictObject({ name: z.string(), company: z.string() }),
	touches: ['people'],
	says: (d) => `put ${d.name}, ${d.company}, on the distribution list`
});
