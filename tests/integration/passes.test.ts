import { readFile } from 'node:fs/promises';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq, like } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import { closePlace, markSensitive } from '../../src/lib/server/access/acts-standing';
import type { Proof } from '../../src/lib/server/platform/runner/actor';
import { makeFolder } from '../../src/lib/server/places/acts';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { changePass, sendPass } from '../../src/lib/server/passes/acts-given';
import { openPass, sendPassCode, takeFromPlacePass } from '../../src/lib/server/passes/acts-open';
import { makePass, withdrawPasses } from '../../src/lib/server/passes/acts';
import { removePlace } from '../../src/lib/server/removed/acts';
import { event, mail, pass as passTable, project } from '../../src/lib/server/platform/db/schema';
import { coverNote } from '../../src/lib/server/formats/cover-note';
import { stamped } from '../../src/lib/server/formats/stamp';
import { readProofs, writeProof } from '../../src/lib/server/platform/auth/proofs';
import { passAddress, passes, passGate, placeByPass } from '../../src/lib/server/passes/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
let folder = '';
let doc = { id: '', number: '' };
beforeAll(async () => {
	world = await TestWorld.open();
	folder = (await world.act('oke', makeFolder, { parent: world.shelf, name: 'For outside' })).id;
	doc = await world.add('oke', 'first words', folder);
});
afterAll(() => world.close());

const UNTIL = '2027-11-30';
const pass = async (more: object = {}, place = folder) => {
	const made = await world.act('oke', makePass, {
		place,
		for: 'Ansa Reyl',
		audience: 'anyone',
		until: UNTIL,
		...more
	});
	return { ...made, secret: made.link.split('/pass/')[1]! };
};
const open = async (secret: string, more: object = {}) =>
	(await world.act(null, openPass, { secret, ...more })).proof;
const lastMail = async (address: string) =>
	(await world.db.select().from(mail).where(eq(mail.toAddress, address)).orderBy(mail.createdAt)).at(-1)!;

it('ends by the project’s own clock, and its mail names that day as people write it', async () => {
	await world.db.update(project).set({ timeZone: 'Europe/Copenhagen' });
	// Half past eleven at night in London is the next day in Copenhagen.
	const late = new Date('2026-11-27T23:30:00Z');
	const terms = { place: world.folder, for: 'Kaja Dorn', audience: 'named', emails: ['kaja@tarn.example'] };
	const yesterday = { ...terms, until: '2026-11-27' };
	expect(await refused(world.act('oke', makePass, yesterday, late))).toMatchObject({ code: 'invalid' });
	await world.act('oke', makePass, { ...terms, until: '2027-01-08' }, late);
	const sent = (await world.db.select().from(mail)).filter((m) => m.toAddress === 'kaja@tarn.example');
	expect(sent.at(-1)!.body).toContain('Open until: 8 Jan 2027');
	await world.db.update(project).set({ timeZone: 'UTC' });
});

describe('a pass to a folder', () => {
	it('shows what lies within, and nothing that is closed, removed or beside it', async () => {
		const inner = await world.act('oke', makeFolder, { parent: folder, name: 'Inner' });
		const secretly = await world.act('oke', makeFolder, { parent: folder, name: 'Closed one' });
		const hidden = await world.add('oke', 'closed words', secretly.id);
		await world.act('oke', closePlace, { place: secretly.id });
		const gone = await world.add('oke', 'gone words', folder);
		await world.act('oke', removePlace, { place: gone.id, reason: 'r' });
		const { secret } = await pass();
		const seen = await world.read(null, placeByPass, { secret });
		expect(seen.folders.map((f) => f.name)).toEqual(['Inner']);
		expect(seen.documents.map((d) => d.id)).toEqual([doc.id]);
		expect(seen.way.map((w) => w.name)).toEqual(['For outside']);
		expect((await world.read(null, placeByPass, { secret, folder: inner.id })).documents).toEqual([]);
		for (const where of [secretly.id, world.shelf, world.other])
			expect(await refused(world.read(null, placeByPass, { secret, folder: where }))).toMatchObject({
				code: 'not-found'
			});
		for (const document of [hidden.id, gone.id])
			expect(
				await refused(world.act(null, takeFromPlacePass, { secret, document, how: 'opened' }))
			).toMatchObject({ code: 'not-found' });
	});

	it('for looking gives no download', async () => {
		const { secret } = await pass();
		await world.act(null, takeFromPlacePass, { secret, document: doc.id, how: 'opened' });
		expect(
			await refused(world.act(null, takeFromPlacePass, { secret, document: doc.id, how: 'downloaded' }))
		).toMatchObject({ code: 'needs-level' });
	});

	it('stays with exactly one version, and says that there is a newer one', async () => {
		const { secret } = await pass({ version: 'P01.1' }, doc.id);
		expect((await world.read(null, placeByPass, { secret })).newer).toBeNull();
		const label = await world.revise(doc.id);
		const seen = await world.read(null, placeByPass, { secret });
		expect(seen.documents[0]!.label).toBe('P01.1');
		expect(seen.newer).toMatchObject({ label });
		const follows = await pass({}, doc.id);
		expect((await world.read(null, placeByPass, { secret: follows.secret })).documents[0]!.label).toBe(label);
	});

	it('asks for its password, slows guessing down, and counts uses', async () => {
		const { secret } = await pass({ password: 'slack water', maxUses: 2 });
		expect(await world.read(null, passGate, { secret })).toMatchObject({ asks: 'password', opened: false });
		expect(await refused(world.read(null, placeByPass, { secret }))).toMatchObject({ code: 'needs-proof' });
		expect(await open(secret, { password: 'wrong' })).toBeNull();
		const first = (await open(secret, { password: 'slack water' }))!;
		expect((await world.read(null, placeByPass, { secret }, [first])).documents).toHaveLength(1);
		await open(secret, { password: 'slack water' });
		expect((await refused(open(secret, { password: 'slack water' }))).sentence).toContain(
			'as often as it may be'
		);
		// Who is in stays in.
		expect((await world.read(null, placeByPass, { secret }, [first])).documents).toHaveLength(1);
		const other = await pass({ password: 'slack water' });
		for (let i = 0; i < 30; i++) await open(other.secret, { password: `guess ${i}` });
		expect(await refused(open(other.secret, { password: 'slack water' }))).toMatchObject({
			code: 'too-many'
		});
	});

	it('at the same time by many is used no more often than it may be', async () => {
		const { secret } = await pass({ maxUses: 3 });
		const tries = await Promise.allSettled(Array.from({ length: 20 }, () => open(secret)));
		expect(tries.filter((t) => t.status === 'fulfilled')).toHaveLength(3);
	});

	it('for named people opens to a code that went to their address, and to nobody else', async () => {
		const { secret } = await pass({ audience: 'named', emails: ['ansa@pilots.example'] });
		await world.act(null, sendPassCode, { secret, email: 'someone@else.example' });
		expect(await world.db.select().from(mail).where(eq(mail.toAddress, 'someone@else.example'))).toEqual([]);
		await world.act(null, sendPassCode, { secret, email: 'ansa@pilots.example' });
		const code = /code for the pass is (\d{6})/.exec((await lastMail('ansa@pilots.example')).body)![1]!;
		const wrong = code === '000000' ? '000001' : '000000';
		expect(await open(secret, { email: 'ansa@pilots.example', code: wrong })).toBeNull();
		expect(await open(secret, { email: 'someone@else.example', code })).toBeNull();
		expect(await open(secret, { email: 'ansa@pilots.example', code })).toMatchObject({
			email: 'ansa@pilots.example'
		});
	});

	it('for people with an account does not open to nobody', async () => {
		const { secret } = await pass({ audience: 'accounts' });
		expect(await refused(world.read(null, placeByPass, { secret }))).toMatchObject({
			facts: { asks: 'account' }
		});
		expect((await world.read('petra', placeByPass, { secret })).documents).toHaveLength(1);
	});

	it.each([
		['too short an ending', { ending: 'quay' }, '12 to 60'],
		['nobody named', { audience: 'named' }, 'at least one mail address'],
		['a day gone by', { until: '2020-01-01' }, 'lies in the past'],
		['three years', { until: '2031-01-01' }, 'two years at most'],
		['a version of a folder', { version: 'P01.1' }, 'Only a document has versions'],
		['stamps without taking', { stamped: true }, 'Only what may be taken'],
		['frames with a password', { embeddable: true, password: 'long enough' }, 'without password']
	])('refuses %s with its sentence', async (_, more, sentence) => {
		expect((await refused(pass(more))).sentence).toContain(sentence);
	});

	it('takes an ending of one’s own, once, and never where something is sensitive', async () => {
		const { link } = await pass({ ending: 'quay-wall-2026' });
		expect(link).toMatch(/\/pass\/quay-wall-2026$/);
		expect(await refused(pass({ ending: 'quay-wall-2026' }))).toMatchObject({ code: 'conflict' });
		expect(
			(await refused(world.act('oke', markSensitive, { place: doc.id, sensitive: true }))).sentence
		).toContain('Withdraw them first');
		const other = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Secret ground' });
		await world.act('oke', markSensitive, { place: other.id, sensitive: true });
		expect((await refused(pass({ ending: 'secret-ground-1' }, other.id))).sentence).toContain(
			'easier to guess'
		);
		expect((await refused(pass({ ending: 'secret-ground-2' }, world.shelf))).sentence).toContain(
			'easier to guess'
		);
		await pass({}, other.id);
	});

	it('follows what the project gives to people outside', async () => {
		await world.act('ines', changeSettings, {
			project: 'VFT',
			outsideLevel: 'view',
			manageNeedsTwoStep: false
		});
		expect((await refused(pass({ mayDownload: true }))).sentence).toContain('view only');
		await world.act('ines', changeSettings, {
			project: 'VFT',
			outsideLevel: null,
			manageNeedsTwoStep: false
		});
		expect((await refused(pass())).sentence).toContain('nothing to people outside');
		await world.act('ines', changeSettings, {
			project: 'VFT',
			outsideLevel: 'download',
			manageNeedsTwoStep: false
		});
	});

	it('is withdrawn by who may, many at once or none, and says so politely', async () => {
		const [a, b] = [await pass(), await pass()];
		expect(
			await refused(world.act('petra', withdrawPasses, { project: 'VFT', passes: [a.id] }))
		).toMatchObject({ code: 'not-found' });
		expect(
			await refused(world.act('oke', withdrawPasses, { project: 'VFT', passes: [a.id, 'zzzzzzzzzz'] }))
		).toMatchObject({ code: 'not-found' });
		await world.read(null, placeByPass, { secret: a.secret });
		await world.act('oke', withdrawPasses, { project: 'VFT', passes: [a.id, b.id] });
		expect((await refused(world.read(null, placeByPass, { secret: a.secret }))).sentence).toBe(
			'This pass was withdrawn. Ask the sender for a new one.'
		);
		const states = (await world.read('oke', passes, { project: 'VFT' })).passes.filter((p) =>
			[a.id, b.id].includes(p.id)
		);
		expect(states.map((s) => s.state)).toEqual(['withdrawn', 'withdrawn']);
		expect((await world.read('petra', passes, { project: 'VFT' })).passes).toEqual([]);
	});
});

describe('a pass that was made', () => {
	const on = (one: string) => ({ project: 'VFT', pass: one });
	const address = (who: string, one: string) => world.read(who, passAddress, on(one));
	const change = (one: string, more: object, who = 'oke') =>
		world.act(who, changePass, { ...on(one), ...more });

	const seen = async (who: string, id: string) =>
		(await world.read(who, passes, { project: 'VFT' })).passes.find((p) => p.id === id)!;

	it('is looked up again by who made it and nobody else, and lies encrypted', async () => {
		const { id, link, secret } = await pass();
		expect(await address('oke', id)).toMatchObject({ link });
		// Who manages the place sees that there is a pass, and not its address.
		expect(await refused(address('ines', id))).toMatchObject({
			code: 'needs-level',
			sentence: (await seen('ines', id)).can.passAddress.why
		});
		expect((await seen('oke', id)).can.passAddress.may).toBe(true);
		expect(await refused(address('petra', id))).toMatchObject({ code: 'not-found' });
		expect(JSON.stringify(await world.db.select().from(passTable))).not.toContain(secret);
	});
	it('is changed, and becomes wider only when that is said', async () => {
		const { id, secret } = await pass({ audience: 'named', emails: ['ansa@pilots.example'] });
		for (const [more, sentence] of [
			[{ mayDownload: true }, 'files may be taken'],
			[{ audience: 'anyone' }, 'anyone who holds the link'],
			[{ emails: ['ansa@pilots.example', 'b@pilots.example'] }, 'b@pilots.example may use it'],
			[{ until: '2028-02-01' }, 'it works until']
		] as const) {
			expect((await refused(change(id, more))).sentence).toContain(sentence);
			const [row] = await world.db.select().from(passTable).where(eq(passTable.id, id));
			expect(row).toMatchObject({ mayDownload: false, audience: 'named' });
		}
		expect(await change(id, { audience: 'anyone', wider: true })).toEqual({ changed: true });
		expect((await world.read(null, placeByPass, { secret })).documents.length).toBeGreaterThan(0);
		expect(await change(id, {})).toEqual({ changed: false });
		expect(await refused(change(id, { for: 'X' }, 'petra'))).toMatchObject({ code: 'not-found' });
		expect(await refused(change(id, { colour: 'red' }))).toMatchObject({ code: 'invalid' });
	});
	it('asks anew when its password changes or somebody is not named any more', async () => {
		const locked = await pass({ password: 'slack water' });
		const proof = (await open(locked.secret, { password: 'slack water' }))!;
		await world.read(null, placeByPass, { secret: locked.secret }, [proof]);
		await change(locked.id, { password: 'another water' });
		expect(await refused(world.read(null, placeByPass, { secret: locked.secret }, [proof]))).toMatchObject({
			code: 'needs-proof'
		});
	});
	it('is sent by mail with a message, to people it names when it names people', async () => {
		const { id, link } = await pass({ audience: 'named', emails: ['ansa@pilots.example'] });
		const send = (emails: string[], who = 'oke') =>
			world.act(who, sendPass, { ...on(id), emails, message: 'Mind the sill at low water.' });
		expect((await refused(send(['x@pilots.example']))).sentence).toContain('Name them first');
		expect(await refused(send(['ansa@pilots.example'], 'ines'))).toMatchObject({ code: 'needs-level' });
		expect(await send(['ansa@pilots.example'])).toEqual({ mailed: 1 });
		const sent = await lastMail('ansa@pilots.example');
		expect(sent.body).toContain('Mind the sill at low water.');
		expect(sent.body).toContain(link);
		expect(sent.secrets).toContain(link);
	});
	it('is neither changed, sent nor looked up by a maker who has lost Manage there, only ended', async () => {
		const at = (await world.act('oke', makeFolder, { parent: world.shelf, name: 'Lent' })).id;
		const rhosyn = { kind: 'person', id: world.people.rhosyn!.person.id };
		await world.act('oke', letIn, { place: at, lines: [{ subject: rhosyn, level: 'manage' }] });
		const { id } = await world.act('rhosyn', makePass, {
			place: at,
			for: 'Ansa Reyl',
			audience: 'anyone',
			until: UNTIL
		});
		await address('rhosyn', id);
		await world.act('oke', letIn, { place: at, lines: [{ subject: rhosyn, level: 'view' }] });
		expect(await refused(change(id, { mayDownload: true, wider: true }, 'rhosyn'))).toMatchObject({
			code: 'needs-level'
		});
		expect(
			await refused(world.act('rhosyn', sendPass, { ...on(id), emails: ['x@pilots.example'] }))
		).toMatchObject({ code: 'needs-level' });
		const { can } = await seen('rhosyn', id);
		expect(can.changePass).toEqual(can.sendPass);
		expect(await refused(address('rhosyn', id))).toMatchObject({
			code: 'needs-level',
			sentence: can.passAddress.why
		});
		expect(await world.act('rhosyn', withdrawPasses, { project: 'VFT', passes: [id] })).toEqual({
			withdrawn: 1
		});
	});
	it('tells the people it names apart in the trail', async () => {
		const emails = ['ansa@pilots.example', 'bo@pilots.example'];
		const { id, secret } = await pass({ audience: 'named', emails });
		for (const email of emails) {
			await world.act(null, sendPassCode, { secret, email });
			const code = /code for the pass is (\d{6})/.exec((await lastMail(email)).body)![1]!;
			const proof = (await open(secret, { email, code }))!;
			await world.act(null, takeFromPlacePass, { secret, document: doc.id, how: 'opened' }, undefined, [
				proof
			]);
		}
		const told = await world.db
			.select()
			.from(event)
			.where(like(event.actor, `pass:${id}%`))
			.orderBy(event.seq);
		for (const kind of ['pass.opened', 'pass.document-opened'])
			expect(told.filter((e) => e.kind === kind).map((e) => e.actorName)).toEqual(
				emails.map((email) => `${email} (Ansa Reyl)`)
			);
	});
	it('has an ending of some variety', async () => {
		expect((await refused(pass({ ending: 'aaaaaaaaaaaa' }))).sentence).toContain('different characters');
		expect((await refused(pass({ ending: '121212121212' }))).sentence).toContain('different characters');
	});
});

describe('what a browser keeps of a pass', () => {
	it('counts only when it was sealed here', () => {
		const proof: Proof = { passId: 'abcdefghjk', email: null, endsAt: 1, of: '' };
		const value = writeProof('secret', proof);
		const name = 'cupboard-pass-abcdefghjk';
		expect(readProofs('secret', [{ name, value }])).toEqual([proof]);
		expect(readProofs('other', [{ name, value }])).toEqual([]);
		expect(readProofs('secret', [{ name, value: value.replace(/^./, 'X') }])).toEqual([]);
		expect(
			readProofs('secret', [
				{ name, value: '' },
				{ name: 'else', value }
			])
		).toEqual([]);
	});
});

describe('stamped copies', () => {
	it('carry the holder’s name on every page, and the original stays as it is', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'cupboard-stamp-'));
		try {
			const pdf = await coverNote(
				{
					format: 'cupboard-manifest/1',
					project: 'VFT',
					release: '0001',
					title: 'T',
					purpose: 'comment',
					issuedAt: '2026-11-01T00:00:00Z',
					issuedBy: 'I',
					approvedBy: 'H',
					recipient: 'M',
					documents: Array.from({ length: 60 }, (_, i) => ({
						number: `N-${i}`,
						title: 'x',
						revision: 'P01',
						file: 'f',
						size: 1,
						sha256: 'a'.repeat(64)
					}))
				},
				null
			);
			const file = join(dir, 'a.pdf');
			writeFileSync(file, pdf);
			const copy = join(dir, 'b.pdf');
			writeFileSync(
				copy,
				await stamped({
					path: file,
					mediaType: 'application/pdf',
					size: pdf.length,
					stamp: { text: 'copy for Ansa Reyl', across: true }
				})
			);
			const pages = execFileSync('pdftotext', [copy, '-'], { encoding: 'utf8' })
				.split('\f')
				.filter((p) => p.trim());
			expect(pages.length).toBeGreaterThan(1);
			for (const page of pages) expect(page).toContain('copy for Ansa Reyl');
			expect(await readFile(file)).toEqual(Buffer.from(pdf));
		} finally {
			rmSync(dir, { recursive: true });
		}
	});

	it('are refused for what cannot carry one, rather than sent without', async () => {
		expect(
			await refused(
				stamped({
					path: '/nowhere',
					mediaType: 'image/vnd.dxf',
					size: 10,
					stamp: { text: 'x', across: false }
				})
			)
		).toMatchObject({ code: 'invalid' });
		expect(
			await refused(
				stamped({
					path: '/nowhere',
					mediaType: 'application/pdf',
					size: 10,
					stamp: { text: 'x', across: false }
				})
			)
		).toMatchObject({ code: 'invalid' });
	});
});
