import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { downloadDocument } from '../../src/lib/server/documents/acts';
import { takeFromPass, confirmReceipt, takeAllFromPass } from '../../src/lib/server/passes/acts-release';
import { oneStep } from '../../src/lib/core/releases';
import { addRecipient } from '../../src/lib/server/people/acts';
import { person as people } from '../../src/lib/server/platform/db/schema';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { tellHolders } from '../../src/lib/server/releases/acts-holders';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { holders, holding } from '../../src/lib/server/releases/views-holders';
import { eq } from 'drizzle-orm';
import { holdersListResponse } from '../../src/lib/server/releases/give-holders';
import { refused, TestWorld } from './world';

let world: TestWorld;
let kaja = '';
beforeAll(async () => {
	world = await TestWorld.open();
	kaja = (
		await world.act('ines', addRecipient, {
			project: 'VFT',
			name: 'Kaja Dorn',
			company: 'Tarn Steelwork',
			email: 'kaja@tarn.example'
		})
	).id;
});
afterAll(() => world.close());

/** Issues documents to somebody, and gives the secret of their pass. */
async function issue(documents: string[], recipient: string) {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient }],
		route: oneStep(world.people.halla!.person.id),
		documents
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return passes[0]!.link.split('/pass/')[1]!;
}
const see = (more: object = {}) => world.read('ines', holders, { project: 'VFT', ...more });
const heldOf = async (document: string) =>
	(await see()).rows
		.find((one) => one.document === document)
		?.held.map((one) => `${one.holder} ${one.label} ${one.state}`);
const MAREN = 'maren@harbourtrust.example';
const KAJA = 'kaja@tarn.example';

describe('who holds what (T12)', () => {
	it('follows what is sent, confirmed, taken and superseded, for each recipient', async () => {
		const [a, b] = [await world.add(), await world.add()];
		expect((await see()).rows).toEqual([]);
		const maren = await issue([a.id, b.id], world.recipient);
		expect(await heldOf(a.id)).toEqual([`${MAREN} P01 unconfirmed`]);
		await world.act(null, takeFromPass, { secret: maren, document: a.id, how: 'opened' });
		expect(await heldOf(a.id)).toEqual([`${MAREN} P01 unconfirmed`]);
		await world.act(null, takeFromPass, { secret: maren, document: a.id, how: 'downloaded' });
		expect(await heldOf(a.id)).toEqual([`${MAREN} P01 current`]);
		expect(await heldOf(b.id)).toEqual([`${MAREN} P01 unconfirmed`]);
		await world.act(null, confirmReceipt, { secret: maren });
		expect(await heldOf(b.id)).toEqual([`${MAREN} P01 current`]);
		// A newer revision goes to somebody else only.
		await world.revise(a.id);
		const tarn = await issue([a.id], kaja);
		expect(await heldOf(a.id)).toEqual([`${KAJA} P02 unconfirmed`, `${MAREN} P01 old`]);
		await world.act(null, takeAllFromPass, { secret: tarn });
		expect(await heldOf(a.id)).toEqual([`${KAJA} P02 current`, `${MAREN} P01 old`]);
		const narrowed = await see({ only: 'old' });
		expect(narrowed).toMatchObject({
			total: 1,
			old: 1,
			unconfirmed: 0,
			rows: [{ document: a.id, issued: 'P02' }]
		});
		const next = await world.act('ines', buildRelease, {
			project: 'VFT',
			title: 'Next',
			purpose: 'approval',
			recipients: [{ recipient: kaja }],
			route: oneStep(world.people.halla!.person.id),
			documents: [b.id]
		});
		expect((await see({ release: next.id })).rows).toMatchObject([{ document: b.id }]);
		expect((await see({ department: world.departments.AR })).rows).toEqual([]);
		expect((await see({ department: world.departments.MW, limit: 1, skip: 1 })).rows).toMatchObject([
			{ document: b.id }
		]);
		const { rows } = await world.read('ines', holding, {
			project: 'VFT',
			holder: MAREN,
			document: a.id
		});
		expect(rows.map((one) => `${one.way} ${one.label}`)).toEqual([
			'sent P01',
			'opened P01',
			'downloaded P01'
		]);
		expect(rows[0]!.confirmed).not.toBeNull();
	});

	it('tells whoever holds an old one, by one mail each, and only them', async () => {
		const told = await world.act('ines', tellHolders, { project: 'VFT' });
		expect(told).toEqual({ told: 1, unknown: 0 });
		const [mail] = (await world.mailsTo(MAREN)).slice(-1);
		expect(mail).toMatch(/you hold P01, P02 is current/);
		expect((await world.mailsTo(KAJA)).join()).not.toMatch(/out of date|is current/);
		expect(await refused(world.act('ines', tellHolders, { project: 'VFT', holder: KAJA }))).toMatchObject({
			code: 'conflict'
		});
	});

	it('counts what people of other companies took with their accounts, and nothing of colleagues', async () => {
		const doc = await world.add();
		const email = 'bo@tarn.example';
		await world.act('ines', letIn, {
			place: world.folder,
			lines: [{ subject: { email, name: 'Bo Hollin', company: 'Tarn Steelwork' }, level: 'download' }]
		});
		const [bo] = await world.db.select().from(people).where(eq(people.email, email));
		world.people.bo = { person: { id: bo!.id, name: bo!.name, email }, via: 'session' };
		for (const who of ['bo', 'petra', 'rhosyn'])
			await world.act(who, downloadDocument, { document: doc.id, label: 'P01.1' }).catch(() => undefined);
		expect(await heldOf(doc.id)).toEqual([`${email} P01.1 current`]);
		expect((await see()).holders.find((one) => one.key === email)).toMatchObject({
			company: 'Tarn Steelwork'
		});
	});

	it('is given as a list, of all of them and not of a page, and as it is narrowed', async () => {
		const list = async (asked: object = {}) => {
			const given = await holdersListResponse(world.services, world.people.ines!, 'csv', {
				project: 'VFT',
				...asked
			});
			expect(given.headers.get('content-disposition')).toMatch(/VFT who holds what .*\.csv/);
			return (await given.text()).trim().split('\r\n');
		};
		const [heads, ...rows] = await list();
		const { rows: shown, holders: outside } = await see();
		expect(rows).toHaveLength(shown.length);
		expect(heads!.split(',').slice(0, 4)).toEqual(['Number', 'Title', 'Now', 'Issued']);
		for (const one of outside) expect(heads).toContain(one.name);
		const old = await list({ only: 'old' });
		expect(old.length - 1).toBe(shown.filter((one) => one.held.some(({ state }) => state === 'old')).length);
		expect(old.length).toBeLessThan(rows.length + 1);
		expect(
			await refused(holdersListResponse(world.services, world.people.oke!, 'csv', { project: 'VFT' }))
		).toMatchObject({ code: 'needs-level' });
	});

	it('is the controllers’ to see', async () => {
		for (const who of ['oke', 'bo'])
			expect(await refused(world.read(who, holders, { project: 'VFT' }))).toMatchObject({
				code: 'needs-level'
			});
	});
});
