import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import { and, eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { daysLater } from '../../src/lib/core/time/spans';
import { cleanUploads } from '../../src/lib/server/content/content';
import { addDocument } from '../../src/lib/server/documents/acts';
import { stamped } from '../../src/lib/server/formats/stamp';
import { takeFromPass } from '../../src/lib/server/passes/acts-release';
import { releasePassContent } from '../../src/lib/server/passes/views';
import { releaseItem } from '../../src/lib/server/platform/db/schema';
import { changeRelease } from '../../src/lib/server/releases/acts';
import { buildAnother, buildRelease } from '../../src/lib/server/releases/acts-begin';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { takeReleasePackage } from '../../src/lib/server/releases/acts-package';
import { outgoingResponse, zipResponse } from '../../src/lib/server/releases/file';
import { releaseOutgoing, releaseView } from '../../src/lib/server/releases/views';
import { passView } from '../../src/lib/server/releases/views-pass';
import { verifyAll } from '../../src/lib/server/trail/verify';
import { putMark } from './marking';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const LINE = '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n100\n21\n50\n0\nENDSEC\n0\nEOF\n';
async function pdfOf(turned = 0): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	const page = pdf.addPage([842, 595]);
	page.setRotation(degrees(turned));
	page.drawText('AS DRAWN', { x: 200, y: 300 });
	return pdf.save();
}
let serial = 100;
async function add(name: string, bytes: Uint8Array) {
	const number = `VFT-MW-LS-00-DR-9${++serial}`;
	const upload = await world.send('oke', bytes, name);
	const { id } = await world.act('oke', addDocument, { folder: world.folder, upload, number, title: name });
	return { id, number };
}
const mark = (document: string, id: string, text: string) => putMark(world, document, id, text);
const build = (documents: { id: string }[], leaving: object) =>
	world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people.halla!.person.id),
		documents: documents.map((one) => one.id),
		...leaving
	});
type Made = { id: string; number: number };
const see = (made: Made) => world.read('ines', releaseView, { project: 'VFT', number: made.number });
async function approved(made: Made): Promise<void> {
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
}
const issue = (made: Made) => world.act('ines', issueRelease, { release: made.id, number: made.number });
const wordsOf = (pdf: Uint8Array) =>
	execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' });
const stored = async (hash: string) => new Uint8Array(await buffer(world.services.store.read(hash)));

describe('documents of a release that leave changed (T6, T14)', () => {
	it('reach the client with stamp and marks, stay as they were here, and are proved by the list and the package', async () => {
		const [sheet, drawing, plain, picture] = [
			await add('sheet.pdf', await pdfOf()),
			await add('drawing.dxf', Buffer.from(LINE)),
			await add('plain.dxf', Buffer.from(LINE.replace('100', '120'))),
			await add(
				'site.png',
				await sharp({ create: { width: 900, height: 600, channels: 3, background: '#456' } })
					.png()
					.toBuffer()
			)
		];
		await mark(drawing!.id, 'abcdefghjk', 'LADDER LACKS A CAGE');
		const made = await build([sheet!, drawing!, plain!, picture!], { stamped: true, withMarks: true });
		const leaves = async () => (await see(made)).items.map((item) => item.leaves);
		expect(await leaves()).toEqual(['stamped', 'stamped, with 1 mark', null, 'stamped']);

		// What is about to go out is looked at before, by whoever controls it.
		const draft = await world.read('ines', releaseOutgoing, { release: made.id, document: drawing!.id });
		const shown = await outgoingResponse(world.services, new Request('http://a.example/'), draft);
		const before = new Uint8Array(await shown.arrayBuffer());
		expect(shown.headers.get('content-type')).toBe('application/pdf');
		expect(wordsOf(before)).toMatch(/LADDER LACKS A CAGE[^]*P01 · S4 .*\n.*Release \d{4} · \d+ \w+ 20\d\d/);
		expect(
			await refused(world.read('halla', releaseOutgoing, { release: made.id, document: drawing!.id }))
		).toMatchObject({ code: 'not-found' });

		await approved(made);
		const { passes } = await issue(made);
		const secret = passes[0]!.link.split('/pass/')[1]!;
		expect(await leaves()).toEqual(['stamped', 'stamped, with 1 mark', null, 'stamped']);
		const { services } = world;
		const rows = await services.database.db
			.select()
			.from(releaseItem)
			.where(eq(releaseItem.releaseId, made.id));
		const at = (document: { id: string }) => rows.find((row) => row.documentId === document.id)!;
		expect(at(plain!).copyHash).toBeNull();
		for (const one of [sheet!, drawing!, picture!]) expect(at(one).copyHash).not.toBe(at(one).pinnedHash);
		expect(at(drawing!).outgoingName).toMatch(/\.pdf$/);
		expect(wordsOf(await stored(at(sheet!).copyHash!))).toMatch(
			new RegExp(`AS DRAWN[^]*${sheet!.number} P01`)
		);
		expect(wordsOf(await stored(at(sheet!).pinnedHash!))).not.toContain('Release');

		// That is what the client has, under its own kind and size.
		for (const one of [sheet!, drawing!, picture!]) {
			const sent = { secret, document: one.id };
			const { hash, fileName } = await world.act(null, takeFromPass, { ...sent, how: 'downloaded' });
			expect([hash, fileName]).toEqual([at(one).copyHash, at(one).outgoingName]);
			const held = await world.read(null, releasePassContent, sent);
			expect(held).toMatchObject({ hash, size: (await stored(hash)).length });
		}
		expect((await world.read(null, passView, { secret })).items.map((one) => one.mediaType)).toEqual([
			'application/pdf',
			'application/pdf',
			'image/vnd.dxf',
			'image/png'
		]);

		// The package lists both and proves them.
		const { name, files } = await world.act('ines', takeReleasePackage, { release: made.id });
		const folder = mkdtempSync(join(world.home, 'package-'));
		const zip = new Uint8Array(await zipResponse(services, files, name).arrayBuffer());
		const unpacked = Object.entries(unzipSync(zip));
		for (const [path, bytes] of unpacked) {
			mkdirSync(dirname(join(folder, path)), { recursive: true });
			writeFileSync(join(folder, path), bytes);
		}
		const proved = () => spawnSync('python3', ['verify.py'], { cwd: folder, encoding: 'utf8' });
		expect(proved()).toMatchObject({ status: 0 });
		const originals = unpacked.flatMap(([path]) => (path.startsWith('data/originals/') ? [path] : []));
		expect(originals).toHaveLength(3);
		const list = JSON.parse(
			Buffer.from(unpacked.find(([path]) => path === 'data/proof/manifest.json')![1]).toString()
		) as { documents: { number: string; sha256: string; madeFrom?: { sha256: string; how: string } }[] };
		expect(list.documents.find((one) => one.number === drawing!.number)).toMatchObject({
			sha256: at(drawing!).copyHash,
			madeFrom: { sha256: at(drawing!).pinnedHash, how: 'stamped, with 1 mark', file: 'drawing.dxf' }
		});
		writeFileSync(join(folder, originals[0]!), 'another');
		expect(proved()).toMatchObject({
			status: 1,
			stdout: expect.stringContaining('changed: data/originals/')
		});

		// What was sent stays, and nobody exchanges it unseen.
		await cleanUploads(services, daysLater(new Date(), 30));
		expect(await services.store.holds(at(sheet!).copyHash!)).toBe(true);
		const fault = async () => (await verifyAll(services.database, services.store, world.home)).fault;
		expect(await fault()).toBeNull();
		await services.database.db
			.update(releaseItem)
			.set({ copyHash: at(picture!).copyHash })
			.where(and(eq(releaseItem.releaseId, made.id), eq(releaseItem.documentId, sheet!.id)));
		expect(await fault()).toContain(`${sheet!.number} is not the file that was issued`);
		await services.database.db
			.update(releaseItem)
			.set({ copyHash: at(sheet!).copyHash })
			.where(and(eq(releaseItem.releaseId, made.id), eq(releaseItem.documentId, sheet!.id)));

		const another = await world.act('ines', buildAnother, { release: made.id });
		expect((await see(another)).release).toMatchObject({ stamped: true, withMarks: true });
	});

	it('are approved as they leave: another choice, or another mark, is asked anew', async () => {
		const sheet = await add('asked.pdf', await pdfOf());
		await mark(sheet.id, 'abcdefghjk', 'first');
		const made = await build([sheet], { withMarks: true });
		await approved(made);
		expect((await see(made)).release.state).toBe('approved');
		await mark(sheet.id, 'abcdefghjm', 'second');
		expect(await refused(issue(made))).toMatchObject({ code: 'conflict' });
		expect((await see(made)).last!.changes).toEqual([
			`${sheet.number}: the marks that go out on it changed.`
		]);
		await world.act('ines', changeRelease, { release: made.id, stamped: true, withMarks: false });
		expect((await see(made)).release).toMatchObject({ state: 'building', stamped: true, withMarks: false });
		await approved(made);
		await issue(made);
	});

	it('that can carry nothing, since the file is locked, stop the issue with their number, and nothing went out', async () => {
		const fine = await add('fine.pdf', await pdfOf());
		const made = await build([fine], { stamped: true });
		await approved(made);
		const copy = world.services.inspector.copy.bind(world.services.inspector);
		const locked = stamped({
			path: '/nowhere',
			mediaType: 'application/pdf',
			size: 10,
			stamp: { text: 'x', across: false }
		});
		await expect(locked).rejects.toMatchObject({ code: 'invalid' });
		const late = Promise.reject(new Error('The worker took too long.'));
		late.catch(() => {});
		try {
			for (const [never, why] of [
				[locked, 'is locked or damaged'],
				[late, 'was not made in time. Issue again']
			] as const) {
				world.services.inspector.copy = () => never;
				expect(await refused(issue(made))).toMatchObject({
					code: 'conflict',
					sentence: expect.stringMatching(`${fine.number}: .*${why}`)
				});
			}
		} finally {
			world.services.inspector.copy = copy;
		}
		expect((await see(made)).release.state).toBe('approved');
		await issue(made);
	});
});

describe('a stamp', () => {
	it.each([0, 90, 180, 270])(
		'stands level in the lower left corner of a page turned by %i degrees',
		async (turned) => {
			const path = join(mkdtempSync(join(world.home, 'stamp-')), 'sheet.pdf');
			writeFileSync(path, await pdfOf(turned));
			const stamp = { text: 'VFT-1 P01 · S4\nRelease 0042', across: false };
			const copy = await stamped({ path, mediaType: 'application/pdf', size: 1_000, stamp });
			const seen = execFileSync('pdftotext', ['-bbox', '-', '-'], { input: copy, encoding: 'utf8' });
			const [, high] = /<page width="[\d.]+" height="([\d.]+)"/.exec(seen)!;
			const word = /xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">0042</.exec(seen)!;
			const [left, top, right, bottom] = word.slice(1).map(Number);
			expect(left).toBeLessThan(150);
			expect(top).toBeGreaterThan(Number(high) - 60);
			expect(right! - left!).toBeGreaterThan(bottom! - top!);
		}
	);

	it('of long words is written smaller rather than cut off', async () => {
		const path = join(mkdtempSync(join(world.home, 'stamp-')), 'sheet.pdf');
		writeFileSync(path, await pdfOf(90));
		const text = `${'long words of a project '.repeat(12)}END`;
		const copy = await stamped({
			path,
			mediaType: 'application/pdf',
			size: 1_000,
			stamp: { text, across: false }
		});
		const seen = execFileSync('pdftotext', ['-bbox', '-', '-'], { input: copy, encoding: 'utf8' });
		const [, wide] = /<page width="([\d.]+)"/.exec(seen)!;
		expect(Number(/xMax="([\d.]+)" yMax="[\d.]+">END</.exec(seen)![1])).toBeLessThan(Number(wide));
	});
});
