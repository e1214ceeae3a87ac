import { execFileSync } from 'node:child_process';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDocument } from '../../src/lib/server/documents/acts';
import { makeHatch } from '../../src/lib/server/hatches/acts';
import { makePass, withdrawPasses } from '../../src/lib/server/passes/acts';
import { putMark } from './marking';
import { ServerProcess } from './server';
import { TestWorld } from './world';

let world: TestWorld;
let server: ServerProcess;
let doc = '';
beforeAll(async () => {
	world = await TestWorld.open();
	doc = (await world.add('oke', 'words to look at')).id;
	server = await ServerProcess.on(world.services.config.databaseUrl, world.home);
});
afterAll(async () => {
	await server.stop('SIGTERM');
	await world.close();
});

const pass = async (more: object, place = doc) => {
	const made = await world.act('oke', makePass, {
		place,
		for: 'Ansa Reyl',
		audience: 'anyone',
		until: '2027-11-30',
		...more
	});
	return { id: made.id, way: new URL(made.link).pathname };
};
async function onePage(): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	pdf.addPage([400, 300]);
	return pdf.save();
}
const LINE = '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n100\n21\n50\n0\nENDSEC\n0\nEOF\n';
const get = (way: string, headers: Record<string, string> = {}) => fetch(server.origin + way, { headers });
const cookieOf = (response: Response) =>
	response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');

describe('a pass in a browser', () => {
	it('counts one use for a browser, however often it comes back', async () => {
		const { way } = await pass({ maxUses: 1 });
		const first = await get(way);
		expect(first.status).toBe(200);
		const cookie = cookieOf(first);
		expect(first.headers.getSetCookie()[0]).toMatch(/HttpOnly/i);
		expect((await get(way, { cookie })).status).toBe(200);
		expect((await get(way)).status).toBe(404);
		expect((await get(`${way}/file/${doc}/shown`, { cookie })).status).toBe(200);
		expect((await get(`${way}/file/${doc}/shown`)).status).toBe(404);
	});

	it('counts every way of reading, also that of a program that opens nothing first', async () => {
		const { way } = await pass({ maxUses: 3 });
		const statuses: number[] = [];
		for (let i = 0; i < 4; i++) statuses.push((await get(`${way}/file/${doc}/shown`)).status);
		expect(statuses).toEqual([200, 200, 200, 404]);
		expect((await get(way)).status).toBe(404);
	});

	it('with a password shows only its gate, takes the right one, and refuses the wrong one', async () => {
		const { way } = await pass({ password: 'slack water' });
		expect(await (await get(way)).text()).toContain('Password of this pass');
		const prove = (password: string) =>
			fetch(`${server.origin}${way}/proof`, {
				method: 'POST',
				headers: { origin: server.origin, 'content-type': 'application/json' },
				body: JSON.stringify({ password })
			});
		const wrong = await prove('high water');
		expect([wrong.status, cookieOf(wrong)]).toEqual([422, '']);
		const cookie = cookieOf(await prove('slack water'));
		expect(await (await get(way, { cookie })).text()).toContain('Sheet 1');
		expect((await get(`${way}/file/${doc}`)).status).toBe(403);
	});

	it('for looking is shown on screen, and refuses the file and its download', async () => {
		const { way } = await pass({});
		const shown = await get(`${way}/file/${doc}/shown`);
		expect(await shown.json()).toEqual({ kind: 'text', html: '<p>words to look at</p>' });
		expect((await get(`${way}/file/${doc}`, { 'sec-fetch-dest': 'document' })).status).toBe(403);
		expect((await get(`${way}/file/${doc}?download`)).status).toBe(403);
	});

	it('stands in a frame elsewhere only where it was made for that', async () => {
		const frames = async (way: string) =>
			/frame-ancestors ([^;]+)/.exec((await get(way)).headers.get('content-security-policy') ?? '')?.[1];
		const [made, plain] = [await pass({ embeddable: true }), await pass({})];
		expect(await frames(`${made.way}/embed`)).toBe('*');
		expect(await frames(made.way)).toBe("'none'");
		expect((await get(`${plain.way}/embed`)).status).toBe(404);
		expect(await frames(`${plain.way}/embed`)).not.toBe('*');
	});

	it('stops in an open tab when it is withdrawn', async () => {
		const { id, way } = await pass({});
		const line = await get(`${way}/live`);
		const reader = line.body!.pipeThrough(new TextDecoderStream()).getReader();
		await reader.read();
		await world.act('oke', withdrawPasses, { project: 'VFT', passes: [id] });
		await expect
			.poll(async () => (await reader.read()).value, { timeout: 5_000 })
			.toContain('"changed":true');
		await reader.cancel();
		const said = await (await get(way)).text();
		expect(said).toContain('This pass was withdrawn');
		expect(said).not.toMatch(/shelves|Removed tell/);
	});
});

describe('a pass with marks', () => {
	/** The words of what is downloaded, and its name. */
	const taken = async (way: string, document: string) => {
		const answer = await get(`${way}/file/${document}?download`);
		expect(answer.status).toBe(200);
		const bytes = Buffer.from(await answer.arrayBuffer());
		const name = answer.headers.get('content-disposition')!;
		const text = bytes.subarray(0, 5).toString() === '%PDF-' ? wordsOf(bytes) : null;
		return { name, text };
	};
	const wordsOf = (pdf: Buffer) => execFileSync('pdftotext', ['-', '-'], { input: pdf, encoding: 'utf8' });
	const mark = (document: string) => putMark(world, document, 'abcdefghjk', 'LADDER LACKS A CAGE');

	const KINDS = ['sheet.pdf', 'sheet.png', 'sheet.dxf'];
	it.each([
		['sheet.pdf', () => onePage()],
		[
			'sheet.png',
			() =>
				sharp({ create: { width: 200, height: 100, channels: 3, background: '#fff' } })
					.png()
					.toBuffer()
		],
		['sheet.dxf', () => Promise.resolve(Buffer.from(LINE))]
	])('gives a copy of %s with them burned in, and its stamp when it has one', async (name, make) => {
		const upload = await world.send('oke', await make(), name);
		const { id } = await world.act('oke', addDocument, {
			folder: world.folder,
			upload,
			number: `VFT-MW-LS-00-DR-09${10 + KINDS.indexOf(name)}`,
			title: name
		});
		const plain = await pass({ mayDownload: true, withMarks: true }, id);
		expect((await taken(plain.way, id)).name).toContain(name.slice(-4));
		await mark(id);
		const copy = await taken(plain.way, id);
		expect(copy.name).toContain('with marks.pdf');
		expect(copy.text).toContain('LADDER LACKS A CAGE');
		const both = await pass({ mayDownload: true, withMarks: true, stamped: true }, id);
		if (name.endsWith('.pdf'))
			expect((await taken(both.way, id)).text).toMatch(/LADDER[^]*copy for Ansa Reyl/);
		const without = await pass({ mayDownload: true }, id);
		expect((await taken(without.way, id)).text ?? '').not.toContain('LADDER');
	});
});

describe('a hatch in a browser', () => {
	it('takes in only the kinds and sizes it is for, and says why not', async () => {
		const made = await world.act('oke', makeHatch, {
			place: world.folder,
			title: 'Shop drawings',
			until: '2027-11-30',
			endings: ['pdf', 'txt'],
			maxFileBytes: 1_000
		});
		const way = new URL(made.link).pathname;
		const send = (name: string, body: string) =>
			server.sendThrough(way, name, new TextEncoder().encode(body));
		expect((await send('a.txt', 'fine')).status).toBe(201);
		for (const [name, body, said] of [
			['a.exe', 'MZ', '.pdf, .txt only'],
			['a.txt', '', 'empty'],
			['a.txt', 'x'.repeat(2_000), 'larger than']
		] as const) {
			const answer = await send(name, body);
			expect(answer.status).toBeGreaterThanOrEqual(400);
			expect(((await answer.json()) as { detail: string }).detail).toContain(said);
		}
		expect(await (await get(way)).text()).not.toContain('Linkspan');
		expect((await get(way.slice(0, -3) + 'xyz')).status).toBe(404);
	});
});
