import WebSocket from 'ws';
import { writeMark } from '../src/lib/core/markup/shared';
import { READER } from './large-project';
import type { Line } from './measure';
import { addDocument, asController, inBrowser, SIGNED_IN, stamp } from './reader';
import { Typist } from './together';

const MARKS = 2_000;
/** A0 at 72 points an inch. */
const [WIDTH, HEIGHT] = [3370, 2384];
const KINDS = ['cloud', 'rectangle', 'arrow', 'callout', 'freehand'] as const;

/** A sheet of one page with a frame, as the smallest PDF that readers open. */
function sheet(): string {
	const stream = `20 20 ${WIDTH - 40} ${HEIGHT - 40} re S`;
	const objects = [
		'<</Type/Catalog/Pages 2 0 R>>',
		'<</Type/Pages/Kids[3 0 R]/Count 1>>',
		`<</Type/Page/Parent 2 0 R/MediaBox[0 0 ${WIDTH} ${HEIGHT}]/Contents 4 0 R/Resources<<>>>>`,
		`<</Length ${stream.length}>>stream\n${stream}\nendstream`
	];
	let text = '%PDF-1.4\n';
	const at = objects.map((object, i) => {
		const from = text.length;
		text += `${i + 1} 0 obj${object}endobj\n`;
		return from;
	});
	const table = at.map((n) => `${String(n).padStart(10, '0')} 00000 n \n`).join('');
	return `${text}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer<</Size ${objects.length + 1}/Root 1 0 R>>\nstartxref\n${text.length}\n%%EOF\n`;
}

/** Draws marks all over the sheet, in the room of its version. */
async function draw(room: string): Promise<void> {
	const drafter = new Typist(`${process.env.ORIGIN!.replace(/^http/, 'ws')}/live/rooms/${room}`, room);
	await drafter.ready;
	for (let from = 0; from < MARKS; from += 200)
		drafter.doc.transact(() => {
			for (let i = from; i < from + 200; i++) {
				const [x, y] = [40 + (i % 50) * 65, 60 + Math.floor(i / 50) * 57];
				writeMark(drafter.doc, `mark${String(i).padStart(6, '0')}`, {
					kind: KINDS[i % KINDS.length]!,
					page: 1,
					points: [
						{ x, y },
						{ x: x + 40, y: y + 24 }
					],
					turn: 0,
					size: 6,
					text: 'Check',
					layer: 'AB',
					by: READER.id,
					at: new Date().toISOString(),
					group: null,
					order: i,
					carried: null
				});
			}
		});
	await new Promise((done) => setTimeout(done, 3_000));
	drafter.close();
}

/**
 * How long frames take while the sheet is dragged to and fro, and while it is zoomed in and out, as the browser counts
 * them, in ms, shortest first.
 */
async function frames(address: string, marks: number): Promise<Record<'dragged' | 'zoomed', number[]>> {
	return inBrowser(async (browser) => {
		const page = await browser.newPage(SIGNED_IN);
		// A browser sends no token with a websocket; this passes it on with one.
		await page.routeWebSocket(/\/live\/rooms\//, (route) => {
			const server = new WebSocket(route.url(), { headers: { authorization: `Bearer ${READER.token}` } });
			const waiting: (string | Buffer)[] = [];
			server.on('open', () => waiting.splice(0).forEach((message) => server.send(message)));
			route.onMessage((message) =>
				server.readyState === WebSocket.OPEN ? server.send(message) : waiting.push(message)
			);
			server.on('message', (message) => route.send(message as Buffer));
			server.on('close', () => void route.close());
			route.onClose(() => server.close());
		});
		await page.goto(address);
		await page.locator('canvas').first().waitFor();
		if (marks)
			await page
				.locator('[data-mark]')
				.nth(marks - 1)
				.waitFor({ state: 'attached', timeout: 60_000 });
		await page.waitForTimeout(2_000);
		const box = (await page.locator('canvas').first().boundingBox())!;
		const watched = async (gesture: () => Promise<void>) => {
			// As text: what compiles this file puts helpers into functions that the page does not know.
			await page.evaluate(`(() => {
				const seen = (window.seen = []);
				let last = performance.now();
				const next = (now) => {
					if (window.seen !== seen) return;
					seen.push(now - last);
					last = now;
					requestAnimationFrame(next);
				};
				requestAnimationFrame(next);
			})()`);
			await gesture();
			const seen = (await page.evaluate('window.seen.splice(2)')) as number[];
			await page.waitForTimeout(1_000);
			return seen.sort((a, b) => a - b);
		};
		await page.mouse.move(box.x + 300, box.y + 200);
		const zoomed = await watched(async () => {
			for (let i = 0; i < 90; i++) await page.mouse.wheel(0, Math.sin(i / 10) > 0 ? -60 : 60);
		});
		const dragged = await watched(async () => {
			await page.mouse.down();
			for (let i = 0; i < 90; i++)
				await page.mouse.move(box.x + 300 + Math.sin(i / 8) * 200, box.y + 200 + Math.cos(i / 8) * 100);
			await page.mouse.up();
		});
		return { dragged, zoomed };
	});
}

/** Moving an A0 sheet with 2,000 marks on it in a browser without a graphics card, against the same sheet with none. */
export async function marking(): Promise<Line[]> {
	const base = process.env.ORIGIN!;
	return asController(async () => {
		const number = `SHEET-${stamp()}`;
		const plain = await addDocument(`${number}A`, 'a.pdf', sheet());
		const marked = await addDocument(`${number}B`, 'b.pdf', sheet());
		await draw(`marks/${marked.id}/${marked.label}`);
		const without = await frames(`${base}/big/document/${plain.id}`, 0);
		const taken = await frames(`${base}/big/document/${marked.id}`, MARKS);
		const p95 = (list: number[]) => list[Math.floor(list.length * 0.95)]!;
		return (['dragged', 'zoomed'] as const).map((gesture) => ({
			what: `a frame while an A0 sheet with ${MARKS.toLocaleString('en')} marks is ${gesture} (60 a second)`,
			value: p95(taken[gesture]),
			unit: 'ms p95',
			budget: 17,
			baseline: { what: 'with no marks', value: p95(without[gesture]) }
		}));
	});
}
