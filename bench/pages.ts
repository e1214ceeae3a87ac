import { FOLDER } from './large-project';
import type { Line } from './measure';
import { inBrowser, SIGNED_IN } from './reader';

/** Loads an address with nothing kept; gives the bytes of its scripts as they travelled, and its largest paint. */
async function cold(address: string): Promise<{ scripts: number; paint: number }> {
	return inBrowser(async (browser) => {
		const page = await browser.newPage(SIGNED_IN);
		const devtools = await page.context().newCDPSession(page);
		await devtools.send('Network.enable');
		const scripts = new Set<string>();
		let bytes = 0;
		devtools.on('Network.responseReceived', ({ requestId, type }) => {
			if (type === 'Script') scripts.add(requestId);
		});
		devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
			if (scripts.has(requestId)) bytes += encodedDataLength;
		});
		await page.goto(address, { waitUntil: 'load' });
		// What the page fetches by itself when it stands; the line that tells of changes never ends.
		await page.waitForTimeout(3_000);
		const paint = (await page.evaluate(`new Promise((done) =>
			new PerformanceObserver((list) => done(list.getEntries().at(-1).startTime)).observe({
				type: 'largest-contentful-paint',
				buffered: true
			}))`)) as number;
		return { scripts: bytes / 1024, paint };
	});
}

/** The first load of a folder page with a cold cache, against that of the smallest page. */
export async function firstLoad(): Promise<Line[]> {
	const base = process.env.ORIGIN!;
	const smallest = await cold(`${base}/sign-in`);
	const folder = await cold(`${base}/BIG/place/${FOLDER}`);
	return [
		{
			what: 'scripts of a folder page, compressed',
			value: folder.scripts,
			unit: 'KB',
			budget: 250,
			baseline: { what: 'those of the sign-in page', value: smallest.scripts }
		},
		{
			what: 'largest paint of a folder of 10,000, nothing kept',
			value: folder.paint,
			unit: 'ms',
			budget: 1_200,
			baseline: { what: 'that of the sign-in page', value: smallest.paint }
		}
	];
}
