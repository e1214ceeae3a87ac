import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { closePlace } from '../../src/lib/server/access/acts-standing';
import { copyDocuments, downloadMany } from '../../src/lib/server/places/acts-copies';
import { makeFolder } from '../../src/lib/server/places/acts';
import { addDocument } from '../../src/lib/server/documents/acts';
import { activity } from '../../src/lib/server/trail/views';
import { takeLock, takeLocks } from '../../src/lib/server/locks/acts';
import { removePlaces, restorePlace, restorePlaces } from '../../src/lib/server/removed/acts';
import { changeDocument, organiseDocuments } from '../../src/lib/server/places/acts-organise';
import { documentView, everythingInHand } from '../../src/lib/server/documents/views';
import { folder as folderView } from '../../src/lib/server/places/views-tree';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const project = 'VFT';
const folder = async (name: string, parent: string, who = 'oke') =>
	(await world.act(who, makeFolder, { parent, name })).id;

/** A folder with a document, a folder in it with two, and one that only Oke may look at. */
async function tree() {
	const top = await folder(`Quay ${Math.random().toString(36).slice(2, 8)}`, world.folder);
	const inner = await folder('Sections', top);
	const closed = await folder('Tender prices', top);
	await world.act('oke', closePlace, { place: closed });
	const documents = [
		await world.add('oke', undefined, top),
		await world.add('oke', undefined, inner),
		await world.add('oke', undefined, inner)
	];
	const hidden = await world.add('oke', undefined, closed);
	return { top, inner, closed, documents, hidden };
}
const look = async (who: string, place: string) => world.read(who, folderView, { place });

describe('whole folders', () => {
	it('are downloaded with their folders, and only what one may take', async () => {
		const { top, documents, hidden } = await tree();
		const { files } = await world.act('rhosyn', downloadMany, { project, folders: [top] });
		expect(files.map((f) => f.number)).toEqual(documents.map((d) => d.number));
		expect(files.map((f) => f.way.slice(1))).toEqual([[], ['Sections'], ['Sections']]);
		const all = await world.act('oke', downloadMany, { project, folders: [top] });
		expect(all.files.map((f) => f.number)).toContain(hidden.number);
		// A document chosen by itself stands beside the folders.
		const both = { project, folders: [top], documents: [documents[0]!.id] };
		expect((await world.act('rhosyn', downloadMany, both)).files).toHaveLength(3);
		const line = { subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' };
		await world.act('oke', letIn, { place: top, lines: [line], note: '' });
		expect(await refused(world.act('petra', downloadMany, { project, folders: [top] }))).toMatchObject({
			code: 'needs-level'
		});
		expect(await refused(world.act('oke', downloadMany, { project }))).toMatchObject({ code: 'invalid' });
	});
	it('are moved with what is in them, and say where from', async () => {
		const { top, documents } = await tree();
		const to = await folder('Archive', world.folder);
		const moved = await world.act('oke', organiseDocuments, { project, folders: [top], to });
		expect(moved.folders).toEqual([{ id: top, from: world.folder }]);
		const { way } = await world.read('oke', documentView, { document: documents[1]!.id });
		expect(way.map((step) => step.id)).toContain(to);
		expect(
			await refused(world.act('rhosyn', organiseDocuments, { project, folders: [top], to: world.folder }))
		).toMatchObject({ code: 'needs-level' });
	});
	it('are tagged in all that one may change', async () => {
		const { top, documents } = await tree();
		await world.act('oke', organiseDocuments, {
			project,
			folders: [top],
			documents: [documents[0]!.id],
			tag: ['quay']
		});
		for (const { id } of documents)
			expect((await world.read('oke', documentView, { document: id })).row.tags).toEqual(['quay']);
	});
});

describe('many documents', () => {
	it('each keep what they had beside what is given to all, and those that were closed stay closed where they go', async () => {
		const to = await folder('Issued elsewhere', world.folder);
		const some = await Promise.all(
			[['a'], ['b'], ['a', 'b'], [], ['a']].map(async (tags) => {
				const { id } = await world.add();
				if (tags.length) await world.act('oke', changeDocument, { document: id, tags });
				return id;
			})
		);
		await world.act('oke', closePlace, { place: some[0]! });
		const organise = (more: object) =>
			world.act('oke', organiseDocuments, { project, documents: some, ...more });
		const before = await organise({ tag: ['x'], untag: ['a'] });
		const had = new Map(before.documents.map((one) => [one.id, one.tags]));
		expect(some.map((id) => had.get(id))).toEqual([['a'], ['b'], ['a', 'b'], [], ['a']]);
		await organise({ to });
		const seen = await Promise.all(some.map((document) => world.read('oke', documentView, { document })));
		expect(seen.map(({ row }) => row.tags)).toEqual([['x'], ['b', 'x'], ['b', 'x'], ['x'], ['x']]);
		expect(seen.map(({ way }) => way.at(-1)!.id)).toEqual(some.map(() => to));
		expect(await refused(world.read('rhosyn', documentView, { document: some[0]! }))).toMatchObject({
			code: 'not-found'
		});
		expect((await world.read('rhosyn', documentView, { document: some[1]! })).row.tags).toEqual(['b', 'x']);
		const { events } = await world.read('oke', activity, { project });
		const told = (kind: string) =>
			new Set(
				events.filter((one) => one.kind === kind && some.includes(one.document!)).map((one) => one.document)
			).size;
		expect([told('document.tagged'), told('document.moved')]).toEqual([some.length, some.length]);
		// A second time changes nothing, and so tells nothing.
		await organise({ to, tag: ['x'], untag: ['a'] });
		const after = await world.read('oke', activity, { project });
		expect(after.events[0]!.seq).toBe(events[0]!.seq);
	});
});

describe('removing many', () => {
	it('takes all or none, what lies in a chosen folder with it, and each comes back by itself', async () => {
		const { top, documents } = await tree();
		const other = await world.add();
		const places = [top, documents[1]!.id, other.id];
		expect(await refused(world.act('rhosyn', removePlaces, { project, places, reason: 'x' }))).toMatchObject({
			code: 'needs-level'
		});
		expect((await world.read('oke', documentView, { document: other.id })).row.number).toBe(other.number);
		const gone = await world.act('oke', removePlaces, { project, places, reason: 'superseded scheme' });
		expect(gone).toEqual({ removed: [top, other.id].sort(), documents: 5 });
		expect(await refused(world.read('oke', documentView, { document: documents[1]!.id }))).toMatchObject({
			code: 'not-found'
		});
		for (const place of gone.removed) await world.act('oke', restorePlace, { place });
		expect((await world.read('oke', documentView, { document: documents[1]!.id })).row.number).toBe(
			documents[1]!.number
		);
	});
	it('is taken back at once, passing over what somebody brought back, with a suffix where a number was taken', async () => {
		const { top, documents } = await tree();
		const [one, two, three] = [await world.add(), await world.add(), await world.add()];
		const { removed } = await world.act('oke', removePlaces, {
			project,
			places: [top, one.id, two.id, three.id],
			reason: 'by mistake'
		});
		expect(await refused(world.act('rhosyn', restorePlaces, { project, places: removed }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('ines', restorePlace, { place: two.id });
		const upload = await world.send('oke', 'another sheet');
		const { id: taken } = await world.act('oke', addDocument, {
			folder: world.folder,
			upload,
			number: one.number,
			title: 'Another sheet'
		});
		// What went with a folder is no restoral of its own.
		const back = await world.act('oke', restorePlaces, { project, places: [...removed, documents[0]!.id] });
		expect(back).toEqual({
			documents: documents.length + 1 + 2,
			folders: [],
			renamed: [`${one.number} → ${one.number}-R1`]
		});
		const { events } = await world.read('ines', activity, { project });
		const kinds = events.slice(0, 4).map((e) => e.kind);
		expect(kinds).toEqual([...Array<string>(3).fill('place.restored'), 'document.added']);
		const numbers = [one, three, documents[0]!, { id: taken }].map(async ({ id }) => {
			const { row } = await world.read('oke', documentView, { document: id });
			return row.number;
		});
		expect(await Promise.all(numbers)).toEqual([
			`${one.number}-R1`,
			three.number,
			documents[0]!.number,
			one.number
		]);
		expect(
			await world.act('oke', restorePlaces, { project, places: removed }),
			'what is back already is passed over'
		).toEqual({ documents: 0, folders: [], renamed: [] });
	});
	it('leaves all where one is in somebody’s hand, and all are gone that were removed a moment ago', async () => {
		const [free, held] = [await world.add(), await world.add()];
		await world.act('rhosyn', takeLock, { document: held.id, purpose: 'soundings' });
		const places = [free.id, held.id];
		for (const who of ['oke', 'ines'])
			expect(await refused(world.act(who, removePlaces, { project, places, reason: 'x' }))).toMatchObject({
				code: 'needs-level'
			});
		const twice = [1, 2].map(() =>
			world.act('oke', removePlaces, { project, places: [free.id], reason: 'x' })
		);
		const outcomes = await Promise.allSettled(twice);
		expect(outcomes.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected']);
	});
	it('brings one folder back for all that were removed from it before it went itself', async () => {
		const { top } = await tree();
		const added = [await world.add('oke', undefined, top), await world.add('oke', undefined, top)];
		const places = added.map((one) => one.id);
		await world.act('oke', removePlaces, { project, places, reason: 'superseded' });
		await world.act('oke', removePlaces, { project, places: [top], reason: 'superseded too' });
		const { documents, folders } = await world.act('oke', restorePlaces, { project, places });
		expect([documents, folders.length]).toEqual([2, 1]);
		const { row } = await world.read('oke', documentView, { document: places[1]! });
		expect(row.number).toBe(added[1]!.number);
	});
	it('of what one may not look at does not exist', async () => {
		const { hidden } = await tree();
		const places = [hidden.id];
		expect(await refused(world.act('rhosyn', removePlaces, { project, places, reason: 'x' }))).toMatchObject({
			code: 'not-found'
		});
	});
});

it('locking many takes the rest when that is asked for, and says what was left with whom', async () => {
	const all = [await world.add(), await world.add(), await world.add()];
	await world.act('rhosyn', takeLock, { document: all[0]!.id, purpose: 'mine' });
	const documents = all.map((d) => d.id);
	expect(await refused(world.act('oke', takeLocks, { project, documents, purpose: '' }))).toMatchObject({
		code: 'in-hand',
		facts: { free: 2 }
	});
	expect(await world.act('oke', takeLocks, { project, documents, purpose: '', rest: true })).toMatchObject({
		locked: 2,
		left: [{ number: all[0]!.number, holder: 'Rhosyn Hale' }]
	});
	const mine = await world.read('oke', everythingInHand, { project, mine: 'true' });
	expect(mine.rows.map((r) => r.number).sort()).toEqual([all[1]!.number, all[2]!.number].sort());
	expect(
		await refused(
			world.act('oke', takeLocks, { project, documents: [documents[0]!], purpose: '', rest: true })
		)
	).toMatchObject({
		code: 'in-hand'
	});
});

// Last, for the copies take the next numbers.
describe('copying', () => {
	it('keeps the structure of folders, and never goes into itself', async () => {
		const { top, inner, documents } = await tree();
		const to = await folder('Copies', world.folder);
		const made = await world.act('rhosyn', copyDocuments, { project, folders: [top], to });
		expect(made.documents).toHaveLength(documents.length);
		const copy = await look('rhosyn', made.folders[0]!);
		expect(copy.direct).toBe(1);
		const sections = copy.tree.find((f) => f.parentId === made.folders[0] && f.name === 'Sections')!;
		expect((await look('rhosyn', sections.id)).direct).toBe(2);
		expect(copy.tree.some((f) => f.parentId === made.folders[0] && f.name === 'Tender prices')).toBe(false);
		expect(
			await refused(world.act('oke', copyDocuments, { project, folders: [top], to: inner }))
		).toMatchObject({
			code: 'conflict'
		});
	});
});
