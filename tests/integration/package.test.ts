import { spawnSync } from 'node:child_process';
import { createPublicKey, verify } from 'node:crypto';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SUITABILITY } from '../../src/lib/core/releases';
import { oneStep } from '../../src/lib/core/releases/route';
import { addDocument } from '../../src/lib/server/documents/acts';
import { addRecipient } from '../../src/lib/server/people/acts';
import { receive } from '../../src/lib/server/content/content';
import { addMarkedFile, placeRemark } from '../../src/lib/server/passes/acts-answering';
import { answerRoom } from '../../src/lib/server/passes/views-answering';
import { confirmReceipt, signVerdicts, takeAllFromPass } from '../../src/lib/server/passes/acts-release';
import { event } from '../../src/lib/server/platform/db/schema';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { takeReleasePackage } from '../../src/lib/server/releases/acts-package';
import { consolidateVerdicts } from '../../src/lib/server/releases/acts-verdicts';
import { zipResponse } from '../../src/lib/server/releases/file';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
let made: { id: string; number: number };
let secrets: string[];
let documents: { id: string; number: string }[];
beforeAll(async () => {
	world = await TestWorld.open();
	documents = [
		await world.act('oke', addDocument, {
			folder: world.folder,
			upload: await world.send('oke', 'the hinge'),
			number: 'VFT-MW-LS-00-DR-0900',
			title: '50% of the hinge: “as planned”'
		}),
		await world.add('oke', 'the deck')
	];
	const kaja = await world.act('ines', addRecipient, {
		project: 'VFT',
		name: 'Kaja Dorn',
		company: 'Tarn Steelwork',
		email: 'kaja@tarn.example'
	});
	made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }, { recipient: kaja.id, documents: [documents[0]!.id] }],
		route: oneStep(world.people.halla!.person.id),
		documents: documents.map((one) => one.id)
	});
	expect((await refused(world.act('ines', takeReleasePackage, { release: made.id }))).sentence).toBe(
		'There is nothing to prove before the release is issued.'
	);
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	secrets = passes.map(({ link }) => link.split('/pass/')[1]!);
});
afterAll(() => world.close());

/** Unpacks a zip into a new folder, as its receiver does. */
async function unpacked(answer: Response): Promise<string> {
	const folder = mkdtempSync(join(world.home, 'unpacked-'));
	for (const [path, bytes] of Object.entries(unzipSync(new Uint8Array(await answer.arrayBuffer())))) {
		mkdirSync(dirname(join(folder, path)), { recursive: true });
		writeFileSync(join(folder, path), bytes);
	}
	return folder;
}
const sums = (folder: string, list: string) =>
	spawnSync('sha256sum', ['-c', '--strict', '--quiet', list], { cwd: folder, encoding: 'utf8' });
const signed = (folder: string, at: string, key: string) =>
	verify(
		null,
		readFileSync(join(folder, `${at}manifest.json`)),
		createPublicKey(readFileSync(join(folder, key))),
		readFileSync(join(folder, `${at}manifest.sig`))
	);
const filesIn = (folder: string) =>
	readdirSync(folder, { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile())
		.map((entry) => join(entry.parentPath, entry.name).slice(folder.length + 1));
const listed = (folder: string, list: string) =>
	readFileSync(join(folder, list), 'utf8')
		.split('\n')
		.slice(0, -1)
		.map((line) => line.slice(66));
const packed = async () => {
	const { name, files } = await world.act('ines', takeReleasePackage, { release: made.id });
	expect(name).toMatch(/^VFT release \d{4} package\.zip$/);
	return unpacked(zipResponse(world.services, files, name));
};

describe('the package of a release (T7)', () => {
	it('lists all that it holds, is whole by programs that know nothing of it, and its lists are signed', async () => {
		const folder = await packed();
		expect(sums(folder, 'manifest-sha256.txt')).toMatchObject({ status: 0, stderr: '' });
		expect(sums(folder, 'tagmanifest-sha256.txt')).toMatchObject({ status: 0, stderr: '' });
		expect(
			[
				...listed(folder, 'manifest-sha256.txt'),
				...listed(folder, 'tagmanifest-sha256.txt'),
				'tagmanifest-sha256.txt'
			].sort()
		).toEqual(filesIn(folder).sort());
		const proofs = filesIn(folder).filter((path) => path.endsWith('/manifest.json'));
		expect(proofs.sort()).toEqual([
			expect.stringMatching(/^data\/proof\/1 Maren Aldgate\//),
			'data/proof/2 Kaja Dorn/manifest.json',
			'data/proof/manifest.json'
		]);
		for (const path of proofs)
			expect(signed(folder, path.slice(0, -'manifest.json'.length), 'data/proof/public-key.pem'), path).toBe(
				true
			);
		const documentsIn = readdirSync(join(folder, 'data/documents'));
		expect(documentsIn).toHaveLength(2);
		expect(documentsIn.join()).toContain('50- of the hinge');
		expect(readFileSync(join(folder, 'bag-info.txt'), 'utf8')).toContain('External-Description: Linkspan\n');
	});

	it('holds what was answered so far, and the trail says who took it', async () => {
		const [maren, kaja] = secrets as [string, string];
		await world.act(null, confirmReceipt, { secret: maren });
		// What came with the verdicts goes along: remarks on sheets, and files with marks by their hash.
		const [first] = documents;
		await world.act(null, placeRemark, {
			...{ secret: maren, document: first!.id, page: 1, x: 12.5, y: 80 },
			text: 'Which bolt?'
		});
		const { pass } = await world.read(null, answerRoom, { secret: maren });
		const bytes = (async function* () {
			yield new TextEncoder().encode('the hinge, with marks');
		})();
		const { upload, hash } = await receive(world.services, { passId: pass }, 'marked: up?.txt', bytes, 1e6);
		await world.act(null, addMarkedFile, { secret: maren, document: first!.id, upload });
		await world.act(null, signVerdicts, {
			secret: maren,
			name: 'Maren Aldgate',
			answers: documents.map(({ id }) => ({ document: id, code: 'A', remark: '' }))
		});
		await world.act(null, signVerdicts, {
			secret: kaja,
			name: 'Kaja Dorn',
			answers: [{ document: documents[0]!.id, code: 'B', remark: '=Mind the bolts' }]
		});
		await world.act('ines', consolidateVerdicts, {
			release: made.id,
			document: documents[0]!.id,
			code: 'B',
			reason: 'The bolts are minded.'
		});
		const folder = await packed();
		const answers = JSON.parse(readFileSync(join(folder, 'data/answers.json'), 'utf8')) as unknown;
		expect(answers).toMatchObject({
			recipients: [
				{ name: 'Maren Aldgate', receivedAt: expect.any(String), verdicts: [{ code: 'A' }, { code: 'A' }] },
				{
					name: 'Kaja Dorn',
					receivedAt: expect.any(String),
					verdicts: [{ code: 'B', remark: '=Mind the bolts' }]
				}
			],
			consolidated: [{ number: documents[0]!.number, code: 'B', reason: 'The bolts are minded.' }]
		});
		const [said] = (
			answers as { recipients: { verdicts: { number: string }[] }[] }
		).recipients[0]!.verdicts.filter((one) => one.number === first!.number);
		const path = `answers/1 Maren Aldgate/${first!.number} side version 1 marked- up-.txt`;
		expect(said).toMatchObject({
			placed: [{ page: 1, x: 12.5, y: 80, text: 'Which bolt?' }],
			files: [{ file: path, sha256: hash }]
		});
		expect(readFileSync(join(folder, 'data', path), 'utf8')).toBe('the hinge, with marks');
		expect(readFileSync(join(folder, 'data/verdicts.csv'), 'utf8')).toContain(path);
		expect(sums(folder, 'manifest-sha256.txt')).toMatchObject({ status: 0, stderr: '' });
		// A sheet must not take what a client wrote for a formula.
		expect(readFileSync(join(folder, 'data/verdicts.csv'), 'utf8')).toContain(`'=Mind the bolts`);
		expect(JSON.parse(readFileSync(join(folder, 'data/metadata.json'), 'utf8'))).toMatchObject({
			containers: [...documents].reverse().map(({ number }) => ({
				containerId: number,
				revision: 'P01',
				status: { code: 'S4' },
				classification: { originator: 'MW', type: 'DR' }
			}))
		});
		// A status that the project changes later is not written into what went out before.
		await world.act('ines', changeSettings, {
			project: 'VFT',
			suitability: { ...USUAL_SUITABILITY, approval: { code: 'X9', words: 'Suitable for nothing' } }
		});
		const later = await packed();
		expect(readFileSync(join(later, 'data/metadata.json'), 'utf8')).not.toContain('X9');
		const told = await world.db.select().from(event).where(eq(event.kind, 'release.packaged'));
		expect(told.at(-1)).toMatchObject({ releaseId: made.id, actorName: 'Ines Maddock' });
	});

	it('names a byte that was changed', async () => {
		const folder = await packed();
		const [document] = readdirSync(join(folder, 'data/documents'));
		writeFileSync(join(folder, 'data/documents', document!), 'another hinge');
		expect(sums(folder, 'manifest-sha256.txt')).toMatchObject({
			status: 1,
			stdout: expect.stringContaining(document!)
		});
	});

	it('is not given to who only decides on a release, nor to who knows nothing of it', async () => {
		expect((await refused(world.act('halla', takeReleasePackage, { release: made.id }))).code).toBe(
			'needs-level'
		);
		expect((await refused(world.act('petra', takeReleasePackage, { release: made.id }))).code).toBe(
			'not-found'
		);
	});
});

describe('what somebody takes from their pass', () => {
	it('is their part, whole by the same programs, with the list that was signed for them', async () => {
		const { files } = await world.act(null, takeAllFromPass, { secret: secrets[1]! });
		const folder = await unpacked(zipResponse(world.services, files, 'release.zip'));
		expect(sums(folder, 'sha256sums.txt')).toMatchObject({ status: 0, stderr: '' });
		expect(signed(folder, 'proof/', 'proof/public-key.pem')).toBe(true);
		expect(filesIn(folder).filter((path) => path.startsWith('VFT-'))).toHaveLength(1);
		expect(filesIn(folder).join()).not.toContain(documents[1]!.number);
	});
});
