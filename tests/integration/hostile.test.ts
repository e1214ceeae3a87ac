import { mkdir, rm, stat, writeFile } from 'node:fs/promises';
import { buffer } from 'node:stream/consumers';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import yazl from 'yazl';
import work from '../../src/lib/server/formats/worker';
import type { Inspection } from '../../src/lib/server/platform/db/schema';

/** Files made to do harm: each is answered with a sentence or a picture, within the limits of the worker. */
const home = join(tmpdir(), `cupboard-hostile-${process.pid}`);
beforeAll(() => mkdir(home));
afterAll(() => rm(home, { recursive: true }));

async function opened(bytes: Uint8Array | string, mediaType: string) {
	const path = join(home, 'file');
	await writeFile(path, bytes);
	const { size } = await stat(path);
	const inspection = (await work({ task: 'inspect', path, mediaType, size })) as Inspection;
	const preview = await work({
		task: 'preview',
		path,
		mediaType,
		size,
		to: join(home, 'preview.webp')
	}).catch(() => false);
	const written = await work({ task: 'written', path, mediaType, size }).then(String, () => '');
	return { inspection, preview, written };
}

const PDF = 'application/pdf';
const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const dxf = (...values: (string | number)[]) => values.join('\n') + '\n';

async function pdfOf(width: number, height: number): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	pdf.addPage([width, height]).drawText('a sheet');
	return pdf.save();
}

/** A PNG that says it is far larger than its bytes. */
function png(width: number, height: number): Buffer {
	const chunk = (type: string, data: Buffer) => {
		const body = Buffer.concat([Buffer.from(type), data]);
		const whole = Buffer.alloc(body.length + 8);
		whole.writeUInt32BE(data.length, 0);
		body.copy(whole, 4);
		return whole;
	};
	const head = Buffer.alloc(13);
	head.writeUInt32BE(width, 0);
	head.writeUInt32BE(height, 4);
	head.set([8, 2], 8);
	const start = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
	return Buffer.concat([
		start,
		chunk('IHDR', head),
		chunk('IDAT', deflateSync(Buffer.alloc(100))),
		chunk('IEND', Buffer.alloc(0))
	]);
}

describe('files made to do harm', () => {
	it('are told from whole ones when they break off', async () => {
		const whole = await pdfOf(600, 800);
		for (const part of [0.1, 0.5]) {
			const { inspection, written } = await opened(whole.slice(0, whole.length * part), PDF);
			expect(inspection.fault).toMatch(/damaged/);
			expect(written).toBe('');
		}
		const jpeg = await sharp({ create: { width: 50, height: 50, channels: 3, background: 'red' } })
			.jpeg()
			.toBuffer();
		expect((await opened(jpeg.subarray(0, 60), 'image/jpeg')).inspection.fault).toMatch(
			/damaged|cannot be read/
		);
		expect((await opened('PK\u0003\u0004 and no more', WORD)).inspection.fault).toMatch(/damaged/);
	});

	it('with pages and pictures of absurd size are not drawn at that size', async () => {
		const { inspection, preview } = await opened(await pdfOf(14_000_000, 14_000_000), PDF);
		expect(inspection).toMatchObject({ unchecked: false, pages: 1 });
		if (preview) expect((await sharp(join(home, 'preview.webp')).metadata()).width).toBeLessThanOrEqual(640);
		const bomb = await opened(png(200_000, 200_000), 'image/png');
		expect(bomb.inspection.fault).toMatch(/damaged|cannot be read/);
		expect(bomb.preview).toBe(false);
	});

	it('with blocks that hold themselves, or each other a thousand times, come to an end', async () => {
		const block = (name: string, ...inside: string[]) => [
			...[0, 'BLOCK', 2, name, 10, 0, 20, 0],
			...inside.flatMap((other) => [0, 'INSERT', 2, other, 10, 1, 20, 1, 70, 40, 71, 40, 44, 1, 45, 1]),
			...[0, 'LINE', 8, 'A', 10, 0, 20, 0, 11, 5, 21, 5, 0, 'ENDBLK']
		];
		const drawing = dxf(
			...[0, 'SECTION', 2, 'BLOCKS', ...block('A', 'A', 'B'), ...block('B', 'C', 'A'), ...block('C', 'B')],
			...[0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES', 0, 'INSERT', 2, 'A', 10, 0, 20, 0, 0, 'ENDSEC', 0, 'EOF']
		);
		const { inspection, preview } = await opened(drawing, 'image/vnd.dxf');
		expect(inspection).toMatchObject({ unchecked: false, fault: null });
		expect(preview).toBe(true);
	});

	it('with scripts, and with pictures from elsewhere, are drawn without them', async () => {
		const svg = `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY secret SYSTEM "file:///etc/hostname">]>
			<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="80" height="60">
			<script>document.title = 'taken'</script><text y="20">&secret;</text>
			<image xlink:href="file:///etc/passwd" width="9" height="9"/><rect width="9" height="9"/></svg>`;
		const { inspection } = await opened(svg, 'image/svg+xml');
		expect(inspection.unchecked).toBe(false);
		const pdf = await PDFDocument.create();
		pdf.addPage([300, 200]);
		pdf.addJavaScript('steal', 'app.alert("taken")');
		expect((await opened(await pdf.save(), PDF)).inspection).toMatchObject({
			unchecked: false,
			fault: null,
			pages: 1
		});
	});

	it('that grow without end when unpacked are read to a bound', async () => {
		const zip = new yazl.ZipFile();
		zip.addBuffer(
			Buffer.from(`<w:document>${'<w:p>word </w:p>'.repeat(3_000_000)}</w:document>`),
			'word/document.xml'
		);
		zip.end();
		const { written } = await opened(await buffer(zip.outputStream), WORD);
		expect(written.length).toBeLessThanOrEqual(300_000);
	});
});
