import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDocument } from '../../src/lib/server/documents/acts';
import { issueRevision } from '../../src/lib/server/documents/acts-revising';
import { readContent } from '../../src/lib/server/find/reading';
import { neighbourhood, references } from '../../src/lib/server/references/views';
import { oneStep } from '../../src/lib/core/releases/route';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { releaseView } from '../../src/lib/server/releases/views';
import { addDeliverables } from '../../src/lib/server/register/acts';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { version } from '../../src/lib/server/platform/db/schema';
import { letIn } from '../../src/lib/server/access/acts';
import { TestWorld } from './world';

let world: TestWorld;
const project = 'VFT';
let serial = 700;
const number = () => `VFT-MW-LS-00-RP-${String(++serial).padStart(4, '0')}`;
/** Adds a text and has its words read, as the job does. */
async function text(says: string, its = number()) {
	const upload = await world.send('oke', says, 'note.md');
	const { id } = await world.act('oke', addDocument, {
		folder: world.folder,
		upload,
		number: its,
		title: `Note ${its}`
	});
	for (const { hash } of await world.db.selectDistinct({ hash: version.hash }).from(version))
		await readContent(world.services, hash);
	return { id, number: its };
}
const of = (document: string, who = 'oke') => world.read(who, references, { document });

beforeAll(async () => {
	world = await TestWorld.open();
	await world.act('ines', changeSettings, { project, releasePurposes: [] });
});
afterAll(() => world.close());

describe('references between documents', () => {
	it('say how each named document stands, and who names it', async () => {
		const issued = await text('the linkspan');
		await world.act('oke', issueRevision, { document: issued.id, purpose: 'comment', note: 'asked' });
		await world.revise(issued.id, 'oke', 'the linkspan, again');
		await world.act('oke', issueRevision, { document: issued.id, purpose: 'comment', note: 'asked again' });
		const open = await text('not issued');
		const planned = number();
		await world.act('ines', addDeliverables, {
			project,
			deliverables: [{ number: planned, title: 'Planned' }]
		});
		// Two signs the other way about: only one document is as near as that.
		const slip = issued.number.replace('-LS-', '-SL-');
		const own = number();
		const about = await text(
			`${own}: see ${issued.number} P01, ${open.number}, ${planned} and ${slip}; also VFT-AR-TB-00-DR-9998.`,
			own
		);
		const { to, read } = await of(about.id);
		expect(read).toBe(true);
		expect(to.map((one) => [one.number, one.how, one.meant !== null])).toEqual([
			[issued.number, 'older', false],
			[open.number, 'not-issued', false],
			[planned, 'planned', false],
			[slip, 'unknown', true],
			['VFT-AR-TB-00-DR-9998', 'unknown', false]
		]);
		expect(to[0]!.document).toMatchObject({ id: issued.id, issued: 'P02' });
		expect((await of(issued.id)).from).toEqual([
			{ document: about.id, number: own, title: `Note ${own}`, label: 'P01.1', revision: 'P01' }
		]);
		expect((await of(open.id)).from.map((one) => one.revision)).toEqual([null]);
	});

	it('tell nothing of documents that the reader may not look at', async () => {
		const hidden = await text('hidden from Architecture');
		const about = await text(`see ${hidden.number}`);
		const slip = hidden.number.replace(/\d$/, (digit) => String((Number(digit) + 5) % 10));
		const other = await text(`see ${slip}`);
		for (const place of [about.id, other.id])
			await world.act('oke', letIn, {
				place,
				lines: [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }]
			});
		expect((await of(about.id)).to[0]!.how).toBe('not-issued');
		expect((await of(about.id, 'petra')).to).toMatchObject([
			{ number: hidden.number, revision: null, how: 'unknown', document: null }
		]);
		// What was most likely meant is only ever something that she may look at.
		expect((await of(other.id)).to[0]!.how).toBe('unknown');
		expect(JSON.stringify(await of(other.id, 'petra'))).not.toContain(hidden.number);
		// Nor of who names what she may look at.
		const named = await text('named by something hidden');
		await text(`see ${named.number} P01`);
		await world.act('oke', letIn, {
			place: named.id,
			lines: [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }]
		});
		expect((await of(named.id)).from).toHaveLength(1);
		expect((await of(named.id, 'petra')).from).toEqual([]);
	});
});

describe('the neighbourhood of a document', () => {
	it('is what it names and what names it, and the same of these, as far as the reader may look', async () => {
		const far = await text('the quay wall');
		const near = await text(`see ${far.number}`);
		const about = await text(`see ${near.number}, and VFT-AR-TB-00-DR-9997, which nobody has`);
		const before = await text(`see ${about.number} P01`);
		const other = await text(`see ${before.number}`);
		const beyond = await text(`see ${before.number} again`);
		await text(`see ${beyond.number}, three steps away`);
		const around = await world.read('oke', neighbourhood, { document: about.id });
		expect(around.number).toBe(about.number);
		expect(around.names.map((one) => `${one.from} ${one.to} ${one.how}`).sort()).toEqual(
			[
				`${about.number} ${near.number} not-issued`,
				`${near.number} ${far.number} not-issued`,
				`${before.number} ${about.number} not-issued`,
				`${other.number} ${before.number} not-issued`,
				`${beyond.number} ${before.number} not-issued`
			].sort()
		);
		expect(around.documents).toHaveLength(6);
		// Petra may look at two of them; of what stands between and beyond she is told nothing.
		for (const place of [about.id, far.id])
			await world.act('oke', letIn, {
				place,
				lines: [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }]
			});
		expect(await world.read('petra', neighbourhood, { document: about.id })).toMatchObject({
			documents: [{ number: about.number }],
			names: []
		});
	});
});

describe('a release that supersedes a revision', () => {
	const build = async (documents: string[], purpose = 'comment') => {
		const made = await world.act('ines', buildRelease, {
			project,
			title: 'Notes',
			purpose,
			recipients: [{ recipient: world.recipient }],
			route: oneStep(world.people.halla!.person.id),
			documents
		});
		const { items } = await world.read('ines', releaseView, { project, number: made.number });
		return (number: string) =>
			items.find((one) => one.number === number)!.checks.find((one) => one.name === 'named-by')!;
	};
	it('is told that what is issued names the old one, but not by what', async () => {
		const named = await text('the fender');
		await world.act('oke', issueRevision, { document: named.id, purpose: 'comment', note: 'asked' });
		const names = await text(`see ${named.number} P01`);
		await text(`see ${named.number} P01, which is not issued itself`);
		await world.revise(named.id, 'oke', 'the fender, again');
		expect((await build([named.id]))(named.number).result).toBe('fine');
		await world.act('oke', issueRevision, { document: names.id, purpose: 'comment', note: 'asked' });
		const check = (await build([named.id]))(named.number);
		expect(check).toMatchObject({
			result: 'look',
			sentence: 'What is issued already names P01 of it, which P02 supersedes.'
		});
		// One that never was issued is superseded by nothing, also where another sequence begins.
		const never = await text('never issued');
		const early = await text(`see ${never.number} P01`);
		await world.act('oke', issueRevision, { document: early.id, purpose: 'comment', note: 'asked' });
		expect((await build([never.id], 'construction'))(never.number).result).toBe('fine');
		// Where it goes out along, what it names is looked at itself.
		await world.revise(names.id, 'oke', `see ${named.number} P01 still`);
		expect((await build([named.id, names.id]))(named.number).result).toBe('fine');
	});
});
