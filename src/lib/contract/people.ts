import { z } from 'zod';
import { BROUGHT_EVENTS } from './access';
import { LEAST_PASSWORD, MOST_PASSWORD } from '../core/people/passwords';
import { PLACE_KINDS, act, done, view } from './act';
import { email, id, moment, name, projectKey, reason } from './fields';

export const changeName = act({
	name: 'changeName',
	summary: 'Change your own name',
	method: 'PATCH',
	path: '/me',
	input: z.strictObject({ name }),
	output: z.strictObject({ name: z.string() }),
	at: { kind: 'self' },
	events: ['person.renamed']
});

export const password = z
	.string()
	.min(LEAST_PASSWORD, `A password has at least ${LEAST_PASSWORD} characters.`)
	.max(MOST_PASSWORD, `A password has at most ${MOST_PASSWORD} characters.`);

export const changePassword = act({
	name: 'changePassword',
	summary: 'Change your own password; all sessions end',
	method: 'PUT',
	path: '/me/password',
	input: z.strictObject({ current: z.string().max(200), password }),
	output: done,
	at: { kind: 'self' },
	events: []
});

/** Longest that a token may last, and how long it lasts when nothing is said, in days. */
export const MOST_TOKEN_DAYS = 730;

export const TOKEN_DAYS = 365;

export const makeToken = act({
	name: 'makeToken',
	summary: 'Make a personal API token; its secret is shown this once',
	method: 'POST',
	path: '/me/tokens',
	input: z.strictObject({
		name,
		/** For reading only, or for everything you may do. */
		scope: z.enum(['read', 'all']).default('all'),
		days: z
			.number()
			.int()
			.min(1)
			.max(MOST_TOKEN_DAYS, 'A token lasts two years at most.')
			.default(TOKEN_DAYS),
		endsWithPassword: z.boolean().default(false)
	}),
	output: z.strictObject({ id: z.string(), secret: z.string() }),
	at: { kind: 'self' },
	events: []
});

export const withdrawToken = act({
	name: 'withdrawToken',
	summary: 'Withdraw a personal API token',
	method: 'DELETE',
	path: '/me/tokens/{token}',
	input: z.strictObject({ token: id }),
	output: done,
	at: { kind: 'self' },
	events: []
});

export const acceptInvitation = act({
	name: 'acceptInvitation',
	summary: 'Set the first password, and the name others see, by the link from the invitation',
	method: 'POST',
	path: '/invitations/{secret}',
	input: z.strictObject({ secret: z.string().max(100), password, name: name.optional() }),
	output: z.strictObject({ email: z.string(), way: z.string() }),
	at: { kind: 'open' },
	events: []
});

export const askRenewal = act({
	name: 'askRenewal',
	summary: 'Ask for a link to set a new password, sent to the mail address of an account',
	method: 'POST',
	path: '/renewals',
	input: z.strictObject({ email }),
	output: z.strictObject({ minutes: z.number() }),
	at: { kind: 'open' },
	events: []
});

export const renewPassword = act({
	name: 'renewPassword',
	summary: 'Set a new password by the link that was asked for; all sessions end',
	method: 'POST',
	path: '/renewals/{secret}',
	input: z.strictObject({ secret: z.string().max(100), password }),
	output: z.strictObject({ email: z.string() }),
	at: { kind: 'open' },
	events: []
});

export const inviteAgain = act({
	name: 'inviteAgain',
	summary: 'Send somebody who never came in a new invitation; earlier ones end',
	method: 'POST',
	path: '/projects/{project}/people/{person}/invitation',
	input: z.strictObject({ project: projectKey, person: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.invited']
});

export const blockPerson = act({
	name: 'blockPerson',
	summary: 'Keep somebody out of the project for a time; everything that was given stays as it is',
	method: 'POST',
	path: '/projects/{project}/people/{person}/block',
	input: z.strictObject({ project: projectKey, person: id, reason }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.blocked']
});

export const unblockPerson = act({
	name: 'unblockPerson',
	summary: 'Let somebody back in who was kept out; with everything as it was',
	method: 'DELETE',
	path: '/projects/{project}/people/{person}/block',
	input: z.strictObject({ project: projectKey, person: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.unblocked']
});

export const moveInside = act({
	name: 'moveInside',
	summary: 'Make somebody from outside a colleague: they leave their company and can be put into departments',
	method: 'POST',
	path: '/projects/{project}/people/{person}/inside',
	input: z.strictObject({ project: projectKey, person: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.moved-inside', ...BROUGHT_EVENTS]
});

export const makeGroup = act({
	name: 'makeGroup',
	summary: 'Make a group: a named list of people across departments',
	method: 'POST',
	path: '/projects/{project}/groups',
	input: z.strictObject({ project: projectKey, name, people: z.array(id).max(2_000).default([]) }),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['group.made']
});

export const changeGroup = act({
	name: 'changeGroup',
	summary: 'Change the name of a group and who is in it',
	method: 'PUT',
	path: '/projects/{project}/groups/{group}',
	input: z.strictObject({ project: projectKey, group: id, name, people: z.array(id).max(2_000) }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['group.changed', ...BROUGHT_EVENTS]
});

export const endGroup = act({
	name: 'endGroup',
	summary: 'End a group; what was given to it ends too',
	method: 'DELETE',
	path: '/projects/{project}/groups/{group}',
	input: z.strictObject({ project: projectKey, group: id }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['group.ended', ...BROUGHT_EVENTS]
});

export const setDepartments = act({
	name: 'setDepartments',
	summary: 'Put a person into departments, as lead or not, and make them document controller or not',
	method: 'PUT',
	path: '/projects/{project}/people/{person}/departments',
	input: z.strictObject({
		project: projectKey,
		person: id,
		departments: z.array(z.strictObject({ department: id, lead: z.boolean().default(false) })).max(50),
		controller: z.boolean().default(false)
	}),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.moved', ...BROUGHT_EVENTS]
});

export const leavePerson = act({
	name: 'leavePerson',
	summary:
		'Close a person who leaves: sessions and tokens end, locks go to the leads, passes they made end; nothing disappears',
	method: 'POST',
	path: '/projects/{project}/people/{person}/leaving',
	input: z.strictObject({ project: projectKey, person: id, reason }),
	output: z.strictObject({ locks: z.number(), passes: z.number(), grants: z.number(), closed: z.boolean() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.left', 'lock.handed-over', 'pass.withdrawn', ...BROUGHT_EVENTS]
});

export const code = z
	.string()
	.trim()
	.toUpperCase()
	.regex(/^[A-Z][A-Z0-9]{1,5}$/, 'A code has two to six letters or digits and begins with a letter.');

export const makeProject = act({
	name: 'makeProject',
	summary: 'Make a project; its maker becomes its document controller',
	method: 'POST',
	path: '/projects',
	input: z.strictObject({
		code,
		name,
		client: name,
		timeZone: z
			.string()
			.refine(
				(zone) => Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC',
				'This is not a known time zone.'
			)
			.default('UTC'),
		/** The number the first release gets. */
		firstRelease: z.number().int().min(1).max(9_999).default(1)
	}),
	output: z.strictObject({ id: z.string(), code: z.string() }),
	at: { kind: 'self' },
	events: ['project.made']
});

export const makeDepartment = act({
	name: 'makeDepartment',
	summary: 'Make a department; its code joins the numbering rule',
	method: 'POST',
	path: '/projects/{project}/departments',
	input: z.strictObject({
		project: projectKey,
		code: code.refine((c) => c.length === 2, 'A department has a code of two letters.'),
		name
	}),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['department.made']
});

/** Somebody who joins a project, and as what. */
const newcomer = z.strictObject({
	name,
	email,
	department: id.nullable().default(null),
	lead: z.boolean().default(false),
	controller: z.boolean().default(false)
});

export const addPerson = act({
	name: 'addPerson',
	summary: 'Add a person to a project by mail address; a mail lets them set their password',
	method: 'POST',
	path: '/projects/{project}/people',
	input: z.strictObject({ project: projectKey, ...newcomer.shape }),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.added']
});

/** So many join at once, at most. */
export const MOST_NEWCOMERS = 200;

export const addPeople = act({
	name: 'addPeople',
	summary:
		'Add many people to a project at once, each with a department and a role of their own; all or none',
	method: 'POST',
	path: '/projects/{project}/newcomers',
	input: z.strictObject({
		project: projectKey,
		people: z.array(newcomer).min(1).max(MOST_NEWCOMERS, `At most ${MOST_NEWCOMERS} people join at once.`)
	}),
	output: z.strictObject({ people: z.array(z.strictObject({ id: z.string() })) }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.added']
});

export const bringGroup = act({
	name: 'bringGroup',
	summary:
		'Bring a group of another project over: whoever is not here yet joins, and the group is made here, or gets them as well',
	method: 'POST',
	path: '/projects/{project}/groups/brought',
	input: z.strictObject({
		project: projectKey,
		/** A group of a project whose document controller you are, too. */
		group: id
	}),
	output: z.strictObject({
		/** The group here; of a company, which joins by its people, none is made. */
		group: z.string().nullable(),
		/** How many joined the project by it. */
		joined: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.added', 'group.made', 'group.changed']
});

/** So many people of the address book are answered, at most. */
export const MOST_IN_BOOK = 5_000;

export const addressBook = view({
	name: 'addressBook',
	summary:
		'Whom the projects that you control have worked with and who is not in this one: people, recipients, and groups that can be brought over',
	path: '/projects/{project}/address-book',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		people: z
			.array(
				z.strictObject({
					name: z.string(),
					email: z.string(),
					/** Of another organisation than this project's own. */
					outside: z.boolean(),
					/** Projects in which they are or were, or on whose distribution list. */
					projects: z.array(z.string()),
					company: z.string().nullable()
				})
			)
			.max(MOST_IN_BOOK),
		groups: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				project: z.string(),
				company: z.boolean(),
				people: z.number(),
				/** How many of them are not in this project yet. */
				newHere: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const addRecipient = act({
	name: 'addRecipient',
	summary: 'Put somebody outside on the distribution list',
	method: 'POST',
	path: '/projects/{project}/recipients',
	input: z.strictObject({ project: projectKey, name, company: name, email }),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['recipient.added']
});

export const markProjectSeen = act({
	name: 'markProjectSeen',
	summary: 'Say that everything up to now has been looked at',
	method: 'POST',
	path: '/projects/{project}/seen',
	input: z.strictObject({ project: projectKey }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: []
});

export const myProjects = view({
	name: 'myProjects',
	summary: 'The projects you are in',
	path: '/projects',
	input: z.strictObject({}),
	output: z.strictObject({
		projects: z.array(
			z.strictObject({ id: z.string(), code: z.string(), name: z.string(), controller: z.boolean() })
		),
		mayMake: z.boolean()
	}),
	at: { kind: 'self' }
});

export const mySecurity = view({
	name: 'mySecurity',
	summary: 'How you sign in',
	path: '/me/security',
	input: z.strictObject({}),
	output: z.strictObject({ twoStep: z.boolean() }),
	at: { kind: 'self' }
});

export const people = view({
	name: 'people',
	summary: 'The departments of a project with their people',
	path: '/projects/{project}/people',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		departments: z.array(z.strictObject({ id: z.string(), code: z.string(), name: z.string() })),
		members: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				email: z.string(),
				controller: z.boolean(),
				outside: z.boolean(),
				twoStep: z.boolean(),
				cameIn: z.boolean(),
				invitedUntil: z.string().nullable(),
				blockedAt: moment.nullable(),
				blockedReason: z.string().nullable(),
				departmentId: z.string().nullable(),
				lead: z.boolean().nullable()
			})
		),
		recipients: z.array(
			z.strictObject({ id: z.string(), name: z.string(), company: z.string(), email: z.string() })
		),
		groups: z.array(
			z.strictObject({ people: z.array(z.string()), id: z.string(), name: z.string(), company: z.boolean() })
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const removed = view({
	name: 'removed',
	summary: 'What was removed and can still be restored',
	path: '/projects/{project}/removed',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				at: moment,
				depth: z.number(),
				until: z.string(),
				mayRestore: z.boolean(),
				id: z.string(),
				kind: z.enum(PLACE_KINDS),
				name: z.string(),
				number: z.string().nullable(),
				removal: z.string(),
				root: z.boolean(),
				reason: z.string(),
				by: z.string(),
				documents: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const outbox = view({
	name: 'outbox',
	summary: 'The mail that Cupboard sent for a project',
	path: '/projects/{project}/outbox',
	input: z.strictObject({ project: projectKey, limit: z.coerce.number().int().min(1).max(500).default(200) }),
	output: z.strictObject({
		server: z.enum(['set', 'none', 'demo']),
		mails: z.array(
			z.strictObject({
				id: z.string(),
				toName: z.string(),
				toAddress: z.string(),
				subject: z.string(),
				body: z.string(),
				/** The same words as a reader of mail shows them; empty for mails written before there was one. */
				html: z.string(),
				/** Name of the file that goes with it. */
				attachment: z.string().nullable(),
				state: z.enum(['waiting', 'failed', 'sent']),
				trouble: z.string().nullable(),
				createdAt: moment,
				sentAt: moment.nullable(),
				receivedAt: moment.nullable()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const myTokens = view({
	name: 'myTokens',
	summary: 'Your personal API tokens',
	path: '/me/tokens',
	input: z.strictObject({}),
	output: z.strictObject({
		tokens: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				scope: z.enum(['read', 'all']),
				endsAt: moment.nullable(),
				endsWithPassword: z.boolean(),
				createdAt: moment,
				lastUsedAt: moment.nullable()
			})
		)
	}),
	at: { kind: 'self' }
});
