import { buffer } from 'node:stream/consumers';
import { describe, expect, it } from 'vitest';
import yazl from 'yazl';
import { unpack, UnpackError } from './unpack';

async function zipOf(files: Record<string, string | Buffer>): Promise<Buffer> {
	const zip = new yazl.ZipFile();
	for (const [name, content] of Object.entries(files)) zip.addBuffer(Buffer.from(content), name);
	zip.end();
	return buffer(zip.outputStream);
}
const asFile = (bytes: Buffer) => new File([new Uint8Array(bytes)], 'a.zip');
const refused = (bytes: Buffer) =>
	unpack(asFile(bytes), () => {}).then(
		() => 'unpacked',
		(error: Error) => (error instanceof UnpackError ? error.message : `not a sentence: ${error}`)
	);

describe('unpacking', () => {
	it('names the folders that hold nothing', async () => {
		const zip = new yazl.ZipFile();
		for (const folder of ['Tower/', 'Tower/As built/', 'Tower/Steel/', '__MACOSX/'])
			zip.addEmptyDirectory(folder);
		zip.addBuffer(Buffer.from('x'), 'Tower/Steel/one.txt');
		zip.end();
		const { empty } = await unpack(asFile(await buffer(zip.outputStream)), () => {});
		expect(empty).toEqual([['Tower', 'As built']]);
	});

	it('gives the files with their folders, without what systems leave behind', async () => {
		const told: [number, number][] = [];
		const { files, empty } = await unpack(
			asFile(
				await zipOf({
					'Tower/Steel/one.txt': 'first',
					'two.txt': 'second',
					'Tower/.DS_Store': 'x',
					'__MACOSX/two.txt': 'x',
					'Thumbs.db': 'x'
				})
			),
			(done, all) => told.push([done, all])
		);
		expect(await Promise.all(files.map(async (f) => [f.folders, f.file.name, await f.file.text()]))).toEqual([
			[['Tower', 'Steel'], 'one.txt', 'first'],
			[[], 'two.txt', 'second']
		]);
		expect(empty).toEqual([]);
		expect(told).toEqual([
			[1, 2],
			[2, 2]
		]);
	});

	it('refuses archives that are damaged, empty, too many or too large', async () => {
		expect(await refused(Buffer.from('PK not a zip'))).toMatch(/damaged/);
		expect(await refused(await zipOf({ '.DS_Store': 'x' }))).toBe('The archive holds no files.');
		const many = Object.fromEntries(Array.from({ length: 2_001 }, (_, i) => [`f${i}.txt`, 'x']));
		expect(await refused(await zipOf(many))).toContain('at most 2000');
		expect(await refused(await zipOf({ 'zeros.bin': Buffer.alloc(30_000_000) }))).toContain('far larger');
	});

	it('breaks off when an archive lies about a size, or a file in it is damaged', async () => {
		const honest = await zipOf({ 'one.txt': 'some words, some words, some words, some words' });
		const lying = Buffer.from(honest);
		const entry = lying.indexOf(Buffer.from('PK\x01\x02'));
		lying.writeUInt32LE(7, entry + 24);
		expect(await refused(lying)).toMatch(/damaged|not as large/);
		const broken = Buffer.from(honest);
		broken[40] = broken[40]! ^ 0xff;
		expect(await refused(broken)).toMatch(/damaged/);
	});

	it('refuses names that lead out of the folder', async () => {
		const bytes = await zipOf({ 'aa/bb/cc.txt': 'x' });
		const text = bytes.toString('latin1').replaceAll('aa/bb/cc.txt', '../../cc.txt');
		expect(await refused(Buffer.from(text, 'latin1'))).toMatch(/damaged/);
	});
});
