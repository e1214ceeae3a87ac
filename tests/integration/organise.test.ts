import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { freezePlace } from '../../src/lib/server/access/acts-standing';
import { makeFolder } from '../../src/lib/server/places/acts';
import { takeLock } from '../../src/lib/server/locks/acts';
import { changeSettings } from '../../src/lib/server/settings/acts';
import {
	changeRevisionScheme,
	changeState,
	issueRevision
} from '../../src/lib/server/documents/acts-revising';
import { copyDocuments, downloadMany } from '../../src/lib/server/places/acts-copies';
import { changeDocument, organiseDocuments } from '../../src/lib/server/places/acts-organise';
import { place } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { documentsIn } from '../../src/lib/server/places/views';
import { folder as folderView } from '../../src/lib/server/places/views-tree';
import { DEFAULT_SCHEME } from '../../src/lib/core/revisions/revisions';
import { refused, TestWorld } from './world';

let world: TestWorld;
let spare: string;
beforeAll(async () => {
	world = await TestWorld.open();
	spare = (await world.act('oke', makeFolder, { parent: world.shelf, name: 'Spare' })).id;
});
afterAll(() => world.close());

const several = async (n: number, who = 'oke') => {
	const made: { id: string; number: string }[] = [];
	for (let i = 0; i < n; i++) made.push(await world.add(who));
	return made;
};
const tidy = (who: string, input: Record<string, unknown>) =>
	world.act(who, organiseDocuments, { project: 'VFT', ...input });
const listed = async (folder: string, who = 'oke') =>
	(await world.read(who, documentsIn, { place: folder })).rows.map((r) => r.id);

describe('many documents at once', () => {
	it('move with their counts, and back again', async () => {
		const documents = (await several(3)).map((d) => d.id);
		const count = async (id: string) => (await world.read('oke', folderView, { place: id })).documents;
		const [here, there] = [await count(world.folder), await count(spare)];
		const { documents: before } = await tidy('oke', { documents, to: spare });
		expect(before.every((b) => b.from === world.folder)).toBe(true);
		expect(await listed(spare)).toEqual(expect.arrayContaining(documents));
		expect([await count(world.folder), await count(spare)]).toEqual([here - 3, there + 3]);
		await tidy('oke', { documents, to: world.folder });
		expect([await count(world.folder), await count(spare)]).toEqual([here, there]);
	});
	it('follow the access of the new place, but keep what was given to one alone', async () => {
		const [plain, given] = await several(2);
		const line = { subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' };
		await world.act('oke', letIn, { place: given!.id, lines: [line], note: '' });
		await world.act('oke', letIn, { place: spare, lines: [{ ...line, level: 'remark' }], note: '' });
		await tidy('oke', { documents: [plain!.id, given!.id], to: spare });
		const scopes = await world.db.select().from(place).where(eq(place.parentId, spare));
		expect(scopes.find((p) => p.id === plain!.id)!.scope).toBe(spare);
		expect(scopes.find((p) => p.id === given!.id)!.scope).toBe(given!.id);
		expect(await listed(spare, 'petra')).toEqual(expect.arrayContaining([plain!.id, given!.id]));
		await tidy('oke', { documents: [plain!.id, given!.id], to: world.folder });
		expect(await refused(world.read('petra', documentView, { document: plain!.id }))).toMatchObject({
			code: 'not-found'
		});
		expect((await world.read('petra', documentView, { document: given!.id })).levelLabel).toBe('View');
	});
	it('are changed all or not at all: somebody else’s need Organise, frozen ones nobody moves', async () => {
		const own = await several(1, 'rhosyn');
		const theirs = await several(1, 'oke');
		await tidy('rhosyn', { documents: [own[0]!.id], tag: ['hinge'] });
		const both = [own[0]!.id, theirs[0]!.id];
		expect(await refused(tidy('rhosyn', { documents: both, to: spare, tag: ['x'] }))).toMatchObject({
			code: 'needs-level'
		});
		expect(await listed(spare)).not.toContain(own[0]!.id);
		expect((await world.read('oke', documentView, { document: own[0]!.id })).row.tags).toEqual(['hinge']);
		await world.act('oke', freezePlace, { place: own[0]!.id, reason: 'release' });
		expect(await refused(tidy('rhosyn', { documents: [own[0]!.id], tag: ['x'] }))).toMatchObject({
			code: 'needs-level'
		});
		expect(await refused(tidy('petra', { documents: both, tag: ['x'] }))).toMatchObject({
			code: 'not-found'
		});
		expect(await refused(tidy('oke', { documents: both, tag: ['<b>'] }))).toMatchObject({ code: 'invalid' });
		expect(await refused(tidy('oke', { documents: both, to: world.other }))).toMatchObject({
			code: 'needs-level'
		});
	});
	it('take tags and lose them, without doubles, in order', async () => {
		const [one] = await several(1);
		await tidy('oke', { documents: [one!.id], tag: ['Tender Pack', 'hinge', 'hinge'] });
		await tidy('oke', { documents: [one!.id], tag: ['alpha'], untag: ['hinge'] });
		expect((await world.read('oke', documentView, { document: one!.id })).row.tags).toEqual([
			'alpha',
			'tender pack'
		]);
	});
	it('are copied as new documents with the next free numbers, and downloaded only with Download', async () => {
		const documents = (await several(2)).map((d) => d.id);
		for (const [i, document] of documents.entries())
			await world.act('oke', changeDocument, { document, number: `VFT-MW-LS-00-CA-000${i + 1}` });
		const copied = await world.act('oke', copyDocuments, { project: 'VFT', documents, to: spare });
		const views = await Promise.all(
			copied.documents.map((d) => world.read('oke', documentView, { document: d.id }))
		);
		expect(views.map((v) => v.row.number)).toEqual(['VFT-MW-LS-00-CA-0003', 'VFT-MW-LS-00-CA-0004']);
		const originals = await Promise.all(
			documents.map((d) => world.read('oke', documentView, { document: d }))
		);
		expect(views.map((v) => v.row.hash).sort()).toEqual(originals.map((v) => v.row.hash).sort());
		const { files } = await world.act('oke', downloadMany, { project: 'VFT', documents });
		expect(files).toHaveLength(2);
		const line = { subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' };
		await world.act('oke', letIn, { place: documents[0], lines: [line], note: '' });
		const one = { project: 'VFT', documents: [documents[0]!] };
		expect(await refused(world.act('petra', downloadMany, one))).toMatchObject({ code: 'needs-level' });
		expect(await refused(world.act('petra', copyDocuments, { ...one, to: world.other }))).toMatchObject({
			code: 'needs-level'
		});
	});
	it('change number and title by the rule, never while somebody else has them in hand', async () => {
		const [one, two] = await several(2);
		const change = (who: string, input: Record<string, unknown>) =>
			world.act(who, changeDocument, { document: one!.id, ...input });
		expect(await refused(change('oke', { number: two!.number }))).toMatchObject({ code: 'conflict' });
		expect(await refused(change('oke', { number: 'not by the rule' }))).toMatchObject({ code: 'invalid' });
		expect(await change('oke', { title: 'Hinge plan', number: 'VFT-MW-LS-00-DR-4711' })).toMatchObject({
			title: 'Hinge plan',
			number: 'VFT-MW-LS-00-DR-4711'
		});
		await world.act('rhosyn', takeLock, { document: one!.id, purpose: '' });
		expect(await refused(change('oke', { title: 'Another' }))).toMatchObject({ code: 'in-hand' });
	});
});

describe('revisions and states', () => {
	beforeAll(() => world.act('ines', changeSettings, { project: 'VFT', releasePurposes: [] }));

	it('a working save is issued as the revision its purpose demands, by Manage, when nobody has it in hand', async () => {
		const [one] = await several(1);
		const issue = (who: string, purpose: string) =>
			world.act(who, issueRevision, { document: one!.id, purpose, note: 'agreed by phone' });
		expect(await refused(issue('rhosyn', 'comment'))).toMatchObject({ code: 'needs-level' });
		await world.act('rhosyn', takeLock, { document: one!.id, purpose: '' });
		expect(await refused(issue('oke', 'comment'))).toMatchObject({ code: 'in-hand' });
		await world.revise(one!.id, 'rhosyn');
		expect(await issue('oke', 'comment')).toEqual({ label: 'P01' });
		expect(await refused(issue('oke', 'comment'))).toMatchObject({ code: 'conflict' });
		expect(await issue('oke', 'construction')).toEqual({ label: 'C01' });
		const view = await world.read('oke', documentView, { document: one!.id });
		expect(view.row).toMatchObject({ label: 'C01', issued: true, state: 'published' });
		expect(new Set(view.versions.slice(0, 3).map((v) => v.hash)).size).toBe(1);
		expect(await world.revise(one!.id)).toBe('C02.1');
	});
	it('states change with a reason; a working save is never published', async () => {
		const [one] = await several(1);
		const put = (state: string, reason = 'no longer needed') =>
			world.act('oke', changeState, { document: one!.id, state, reason });
		expect(await refused(put('published'))).toMatchObject({ code: 'conflict' });
		expect(await refused(put('archived', ''))).toMatchObject({ code: 'invalid' });
		await put('archived');
		expect(await refused(world.act('rhosyn', takeLock, { document: one!.id, purpose: '' }))).toMatchObject({
			code: 'needs-level'
		});
		expect(await refused(put('archived'))).toMatchObject({
			code: expect.stringMatching(/conflict|needs-level/)
		});
	});
	it('the scheme can grow, but not lose what documents wear', async () => {
		const change = (who: string, input: unknown) =>
			world.act(who, changeRevisionScheme, { project: 'VFT', ...(input as object) });
		const grown = {
			sequences: [...DEFAULT_SCHEME.sequences, { prefix: 'Z', name: 'as built', digits: 2 }],
			demands: { ...DEFAULT_SCHEME.demands, 'as-built': 'Z' }
		};
		expect(await refused(change('oke', grown))).toMatchObject({ code: 'needs-level' });
		await change('ines', grown);
		const [one] = await several(1);
		const built = { document: one!.id, purpose: 'as-built', note: 'survey' };
		expect(await world.act('oke', issueRevision, built)).toEqual({ label: 'Z01' });
		expect(await refused(change('ines', DEFAULT_SCHEME))).toMatchObject({ code: 'invalid' });
		const wider = { ...grown, sequences: grown.sequences.map((s) => ({ ...s, digits: 3 })) };
		expect((await refused(change('ines', wider))).sentence).toContain('digits');
	});
});
