import { oneStep } from '../../src/lib/core/releases/route';
import addFormats from 'ajv-formats';
import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import OpenAPIClientAxios from 'openapi-client-axios';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { access } from '../../src/lib/server/access/views';
import { VIEWS } from '../../src/lib/server/api/views';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { dropFiles, makeHatch } from '../../src/lib/server/hatches/acts';
import { addLiveSchedule } from '../../src/lib/server/live/acts-schedules';
import { addLiveText } from '../../src/lib/server/live/acts-texts';
import { takeLock } from '../../src/lib/server/locks/acts';
import { makePass } from '../../src/lib/server/passes/acts';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { makeGroup } from '../../src/lib/server/people/acts-groups';
import { addDeliverables } from '../../src/lib/server/register/acts';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { removePlace } from '../../src/lib/server/removed/acts';
import { ServerProcess } from './server';
import { TestWorld } from './world';

/**
 * Programs of others read the description that the running server gives: one makes its client from it, another holds
 * the answers against it.
 */
interface Description {
	paths: Record<string, Record<string, { operationId: string; responses: Record<string, unknown> }>>;
}
let world: TestWorld;
let server: ServerProcess;
let description: Description;
let ajv: Ajv2020;
let client: Record<string, (input: object) => Promise<{ status: number; data: unknown }>>;
/** What each view is asked with; what stands here for all goes to those that take it. */
let common: Record<string, unknown>;
let own: Record<string, Record<string, unknown>>;
let token: string;

beforeAll(async () => {
	world = await TestWorld.open();
	const doc = await world.add();
	await world.revise(doc.id);
	await world.act('halla', letIn, { place: world.other, lines: [] }).catch(() => {});
	// A side version: a file that comes without the lock.
	await world.act('oke', takeLock, { document: doc.id, purpose: 'hinge', expectedEnd: null });
	await world.act('rhosyn', handIn, {
		document: doc.id,
		upload: await world.send('rhosyn', 'beside'),
		note: 'beside',
		base: 'P01.2',
		beside: true
	});
	await world.act('ines', addRemark, { document: doc.id, anchor: { on: 'whole' }, text: 'Which hinge?' });
	const lines = [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }];
	await world.act('ines', letIn, { place: world.folder, lines });
	const { grant } = (await world.read('ines', access, { place: world.folder })).rows.find((r) => r.here)!;
	const group = await world.act('ines', makeGroup, { project: 'VFT', name: 'Coordination', people: [] });
	const pass = await world.act('ines', makePass, {
		place: world.folder,
		for: 'Tarn',
		audience: 'anyone',
		until: '2027-12-31',
		mayDownload: true
	});
	const hatch = await world.act('ines', makeHatch, { place: world.folder, title: 'In', until: '2027-12-31' });
	await world.act('oke', dropFiles, {
		place: world.folder,
		uploads: [await world.send('oke', 'in', 'in.txt')]
	});
	const text = await world.act('oke', addLiveText, {
		folder: world.folder,
		number: 'VFT-MW-LS-00-RP-0001',
		title: 'Report'
	});
	const schedule = await world.act('oke', addLiveSchedule, {
		folder: world.folder,
		number: 'VFT-MW-LS-00-SH-0001',
		title: 'Piles',
		schedule: { columns: [{ name: 'Mark' }], rows: [['P1']] }
	});
	const gone = await world.add();
	await world.act('oke', removePlace, { place: gone.id, reason: 'twice' });
	const issued = await world.add();
	const build = () =>
		world.act('ines', buildRelease, {
			project: 'VFT',
			title: 'Pit',
			purpose: 'comment',
			recipients: [{ recipient: world.recipient }],
			route: oneStep(world.people.halla!.person.id),
			documents: [issued.id]
		});
	const release = await build();
	await world.acceptAll(release);
	await world.act('ines', askApproval, { release: release.id });
	await world.approve('halla', release);
	const issue = await world.act('ines', issueRelease, {
		release: release.id,
		number: release.number,
		passDays: 30
	});
	const ending = (link: string) => link.split('/').at(-1)!;
	common = {
		project: 'VFT',
		place: world.folder,
		folder: world.folder,
		document: doc.id,
		label: 'P01.2',
		release: release.id,
		person: world.people.oke!.person.id,
		number: release.number,
		side: 1,
		grant,
		group: group.id,
		people: [world.people.oke!.person.id],
		level: 'download',
		departments: world.departments.AR,
		upload: await world.send('ines', 'known'),
		files: ['pit.dxf', 'hinge plan.dxf'],
		numbers: [doc.number],
		q: 'sheet',
		content: 'a'.repeat(64),
		secret: ending(issue.passes[0]!.link),
		pass: pass.id
	};
	const planned = await world.act('ines', addDeliverables, {
		project: 'VFT',
		deliverables: [{ number: 'VFT-MW-LS-00-DR-0999', title: 'Fender', planned: { comment: '2026-12-01' } }]
	});
	own = {
		handInCheck: { upload: await world.send('ines', 'new') },
		liveText: { document: text.id },
		liveRoom: { document: text.id },
		liveNames: { document: text.id },
		liveAuthors: { document: text.id },
		liveSchedule: { document: schedule.id },
		placeByPass: { secret: ending(pass.link) },
		placePassContent: { secret: ending(pass.link) },
		passView: { document: issued.id },
		releasePassContent: { document: issued.id },
		releaseContent: { document: issued.id },
		releaseMarks: { document: issued.id },
		drawnMarks: { document: issued.id },
		releaseOutgoing: { document: issued.id },
		hatchView: { secret: ending(hatch.link) },
		deliverable: { deliverable: planned.ids[0]! },
		coverNoteDraft: { release: (await build()).id, recipient: world.recipient },
		proposedRecipients: { purpose: 'approval' },
		register: { departments: 'MW', group: 'department' },
		registerFigures: { departments: 'MW' }
	};
	token = (await world.act('ines', makeToken, { name: 'tests' })).secret;
	const { databaseUrl, home } = world.services.config;
	server = await ServerProcess.on(databaseUrl, home);
	description = (await (await fetch(`${server.origin}/api/v1/openapi.json`)).json()) as Description;
	ajv = new Ajv2020({ strict: false, allErrors: true });
	addFormats(ajv);
	ajv.addSchema(description, 'api');
	const api = new OpenAPIClientAxios({
		definition: structuredClone(description) as never,
		withServer: { url: `${server.origin}/api/v1` },
		axiosConfigDefaults: {
			headers: { authorization: `Bearer ${token}` },
			validateStatus: () => true,
			paramsSerializer: { indexes: null }
		}
	});
	client = (await api.init()) as never;
});
afterAll(async () => {
	await server.stop('SIGTERM');
	await world.close();
});

/** What is held against an answer of an operation with a status. */
function schemaOf(operation: string, status: number): ValidateFunction {
	for (const [path, methods] of Object.entries(description.paths))
		for (const [method, { operationId }] of Object.entries(methods)) {
			if (operationId !== operation) continue;
			const type = status === 200 ? 'application/json' : 'application/problem+json';
			const way = ['paths', path, method, 'responses', String(status), 'content', type, 'schema']
				.map((step) => step.replaceAll('~', '~0').replaceAll('/', '~1'))
				.map(encodeURIComponent)
				.join('/');
			return ajv.compile({ $ref: `api#/${way}` });
		}
	throw new Error(`${operation} is not described.`);
}

/** Views that cannot be answered in this small world: nothing is drawn, and no picture stands in a text. */
const WITHOUT = ['liveDrawing', 'livePictureContent', 'markRoom', 'marks'];

describe('the description of the API, read by programs of others', () => {
	it.each(VIEWS.map((view) => [view.name, view] as const))('%s answers as described', async (name, view) => {
		const wanted = { ...common, ...own[name] };
		const input = Object.fromEntries(
			Object.keys(view.input.shape).flatMap((key) => (key in wanted ? [[key, wanted[key]]] : []))
		);
		if (name === 'activity' || name === 'trail') for (const key of ['from', 'to', 'actor']) delete input[key];
		if (name === 'activity' || name === 'everythingInHand' || name === 'remarksWithin') delete input.place;
		const { status, data } = await client[name]!(input);
		const holds = schemaOf(name, status);
		expect(
			holds(data),
			`${status} ${JSON.stringify(holds.errors)} ${JSON.stringify(data).slice(0, 300)}`
		).toBe(true);
		expect([200, ...(WITHOUT.includes(name) ? [404, 409, 422] : [])], JSON.stringify(data)).toContain(status);
	});

	it('describes what is refused, too', async () => {
		const answers = [
			['documentView', { document: 'zzzzzzzzzz' }, 404],
			['documentView', { document: 'no id' }, 422],
			['passView', { secret: 'nobody-knows-this' }, 404]
		] as const;
		for (const [name, input, status] of answers) {
			const answer = await client[name]!(input);
			expect(answer.status, name).toBe(status);
			const holds = schemaOf(name, status);
			expect(holds(answer.data), JSON.stringify(holds.errors)).toBe(true);
		}
	});

	it('answers by POST what is too long for an address, and changes nothing by it', async () => {
		const ask = async (path: string, body: unknown) => {
			const answer = await fetch(`${server.origin}/api/v1${path}`, {
				method: 'POST',
				headers: {
					authorization: `Bearer ${token}`,
					'content-type': 'application/json',
					'x-http-method-override': 'GET'
				},
				body: JSON.stringify(body)
			});
			return { status: answer.status, data: (await answer.json()) as never };
		};
		const files = Array.from({ length: 1_000 }, (_, i) => `A sheet with a long name ${i}.pdf`);
		const { data } = await ask(`/places/${world.folder}/proposals`, { files });
		expect((data as { proposals: unknown[] }).proposals).toHaveLength(1_000);
		// A release is built by POST to this very path; asked for, the releases are listed and none is built.
		const before = await client.releases!({ project: 'VFT' });
		const listed = await ask('/projects/VFT/releases', {});
		expect(listed).toEqual({ status: 200, data: before.data });
		// What can only be changed cannot be asked, and what is asked is checked as ever.
		expect((await ask(`/documents/${common.document as string}/lock`, { purpose: 'hinge' })).status).toBe(
			404
		);
		expect((await ask('/projects/VFT/releases', { more: 1 })).status).toBe(422);
	});

	it('leads from each problem to a page that says what it means', async () => {
		const { data } = await client.documentView!({ document: 'zzzzzzzzzz' });
		const page = await fetch(server.origin + (data as { type: string }).type);
		expect(page.status).toBe(200);
		expect(await page.text()).toContain('not-found (404)');
	});
});
