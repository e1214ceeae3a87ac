import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Inspection } from '../platform/db/schema';
import { HEAD_BYTES, sniff } from './sniff';
import work from './worker';

let home: string;
beforeAll(async () => {
	home = await mkdtemp(join(tmpdir(), 'cupboard-inspect-'));
});
afterAll(() => rm(home, { recursive: true, force: true }));

/** Opens bytes as the server does when they arrive: by their own kind. */
async function opened(name: string, bytes: Uint8Array) {
	const path = join(home, name);
	await writeFile(path, bytes);
	const mediaType = await sniff(bytes.subarray(0, HEAD_BYTES), name);
	const seen = (await work({ task: 'inspect', path, mediaType, size: bytes.byteLength })) as Inspection;
	return { mediaType, ...seen };
}
const begins = (head: string | number[], length = 400) => {
	const bytes = Buffer.alloc(length);
	Buffer.from(head as string, 'latin1').copy(bytes);
	return bytes;
};
const picture = () => sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } });

describe('opening what arrives', () => {
	it.each<[string, string, Uint8Array]>([
		['DWG', 'plan.dwg', begins('AC1032\0\0\0\0\0')],
		['BMP', 'scan.bmp', begins('BM6\0\0\0\0\0\0\0' + '6\0\0\0')],
		['PSD', 'board.psd', begins('8BPS\0\x01')],
		['JPEG 2000', 'map.jp2', begins('\0\0\0\x0cjP  \r\n\x87\n\0\0\0\x14ftypjp2 ')],
		['HEIC', 'phone.heic', begins('\0\0\0\x18ftypheic\0\0\0\0mif1heic')],
		['binary DXF', 'old.dxf', begins('Drawing Binary DXF\r\n\x1a\0')],
		['IFC', 'model.ifc', Buffer.from('ISO-10303-21;\nHEADER;\n')],
		['nothing known', 'model.bin', begins([1, 2, 0, 3])]
	])('keeps %s without calling it damaged', async (_, name, bytes) => {
		expect(await opened(name, bytes)).toMatchObject({ fault: null });
	});
	it('asks to look at what it cannot open, and only at that', async () => {
		expect(await opened('a.dwg', begins('AC1032\0\0\0\0\0'))).toMatchObject({ unchecked: true });
		expect(await opened('a.tiff', await picture().tiff().toBuffer())).toMatchObject({
			mediaType: 'image/tiff',
			unchecked: false,
			fault: null
		});
		expect(await opened('a.png', await picture().png().toBuffer())).toMatchObject({
			fault: null,
			unchecked: false
		});
	});
	it('opens a PDF whose attachments alone are locked, and finds its words', async () => {
		const path = join(import.meta.dirname, '../../../../tests/files/attachment-locked.pdf');
		const bytes = await readFile(path);
		expect(await opened('a.pdf', bytes)).toMatchObject({ fault: null, unchecked: false, pages: 1 });
		const said = await work({ task: 'written', path, mediaType: 'application/pdf', size: bytes.length });
		expect(said).toBe('Readable without a password');
	});
	it('finds the words of Markdown, and not the marks around them', async () => {
		const path = join(home, 'minutes.md');
		await writeFile(
			path,
			'## Actions\n\n- **Oke** sets out the *pile* line, A < B\n- see [the list](https://x.example)\n\n| Pile | Level |\n|---|---|\n| P-01 | -4.50 |\n'
		);
		const said = (await work({ task: 'written', path, mediaType: 'text/markdown', size: 1 })) as string;
		expect(said.replace(/\s+/g, ' ').trim()).toBe(
			'Actions Oke sets out the pile line, A < B see the list Pile Level P-01 -4.50'
		);
	});
	it('says so when a picture of a kind it knows is damaged', async () => {
		const whole = await picture().png().toBuffer();
		expect(
			(await opened('cut.png', Buffer.concat([whole.subarray(0, 20), Buffer.alloc(20)]))).fault
		).toContain('damaged');
	});
});
