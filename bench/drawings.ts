import type { Page } from '@playwright/test';
import { readDxf } from '../src/lib/core/dxf/read';
import { inTurns, type Line } from './measure';
import { addDocument, asController, inBrowser, SIGNED_IN, stamp } from './reader';

const ENTITIES = 50_000;
/** One of so many is changed in the second drawing. */
const EVERY = 1_000;

/** A drawing of lines, frames, words and bolts on twelve layers, in a sheet of A0 at 1:100. */
export function drawing(changed: boolean, entities = ENTITIES): string {
	const out: (string | number)[] = [0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 2, 'BOLT', 10, 0, 20, 0];
	out.push(0, 'CIRCLE', 8, '0', 10, 0, 20, 0, 40, 3, 0, 'ENDBLK', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES');
	let seed = 5;
	const next = (most: number) => (seed = (seed * 48271) % 2147483647) % most;
	for (let i = 0; i < entities; i++) {
		const off = changed && i % EVERY === 7 ? 25 : 0;
		const [x, y] = [next(84_000), next(59_000)];
		const head = (type: string) => [0, type, 5, (i + (changed ? 4096 : 256)).toString(16), 8, `L${next(12)}`];
		const kind = i % 5;
		if (kind < 2) out.push(...head('LINE'), 10, x + off, 20, y, 11, x + next(900), 21, y + next(900));
		else if (kind === 2)
			out.push(
				...head('LWPOLYLINE'),
				90,
				3,
				70,
				1,
				10,
				x,
				20,
				y,
				10,
				x + 200 + off,
				20,
				y,
				10,
				x,
				20,
				y + 80
			);
		else if (kind === 3) out.push(...head('TEXT'), 10, x, 20, y, 40, 50, 1, `B${i}${off ? ' new' : ''}`);
		else out.push(...head('INSERT'), 2, 'BOLT', 10, x + off, 20, y);
	}
	return [...out, 0, 'ENDSEC', 0, 'EOF'].join('\n') + '\n';
}

/** Opens it; gives the milliseconds until the list of items stood, and those that it did not answer at most. */
async function opened(page: Page, address: string): Promise<{ took: number; longest: number }> {
	await page.goto(address);
	const items = page.getByRole('tab', { name: 'Items' });
	await items.waitFor({ timeout: 120_000 });
	const took = (await page.evaluate(`new Promise((done) => {
		const look = () => (window.shown ? done(window.shown) : setTimeout(look, 20));
		look();
	})`)) as number;
	const found = Number(/\d+/.exec((await items.textContent()) ?? '')?.[0]);
	if (found !== ENTITIES / EVERY) throw new Error(`${found} items of ${ENTITIES / EVERY} were found`);
	return { took, longest: (await page.evaluate('window.longest')) as number };
}

/** From the address of a comparison to its list of items, in a browser, and how long it did not answer meanwhile. */
export async function largeDrawings(): Promise<Line[]> {
	const [before, after] = [drawing(false), drawing(true)];
	const { reading } = await inTurns({
		reading: () => {
			const begin = performance.now();
			readDxf(before);
			return Promise.resolve(performance.now() - begin);
		}
	});
	const number = `DRAW-${stamp()}`;
	const [a, b] = await asController(async () => [
		await addDocument(`${number}A`, 'a.dxf', before),
		await addDocument(`${number}B`, 'b.dxf', after)
	]);
	const address = `${process.env.ORIGIN}/BIG/document/${a.id}/compare?from=${a.label}&to=${b.label}&with=${b.id}`;
	return inBrowser(async (browser) => {
		const page = await browser.newPage(SIGNED_IN);
		// The programs of the page are there already when somebody compares for the second time.
		await page.goto(address);
		await page.getByRole('tab', { name: 'Items' }).waitFor({ timeout: 120_000 });
		await page.addInitScript(`(() => {
			let last = 0;
			window.longest = 0;
			// When the list stood there is seen by the page itself: whoever asks it from outside asks every half a second.
			new MutationObserver((_, watch) => {
				if (![...document.querySelectorAll('[role=tab]')].some((tab) => /^\\s*Items/.test(tab.textContent))) return;
				watch.disconnect();
				requestAnimationFrame(() => setTimeout(() => (window.shown = performance.now())));
			}).observe(document, { childList: true, characterData: true, subtree: true });
			const next = (now) => {
				if (last) window.longest = Math.max(window.longest, now - last);
				last = now;
				requestAnimationFrame(next);
			};
			requestAnimationFrame(next);
		})()`);
		const answered: number[] = [];
		const { shown } = await inTurns({
			shown: async () => {
				const { took, longest } = await opened(page, address);
				answered.push(longest);
				return took;
			}
		});
		const against = { what: 'reading one of them', value: reading };
		return [
			{
				what: `two drawings of ${ENTITIES.toLocaleString('en')} entities to their compared items, in a browser`,
				value: shown,
				unit: 'ms',
				budget: 1_500,
				baseline: against
			},
			{
				what: 'the longest time that page did not answer meanwhile',
				value: Math.max(...answered),
				unit: 'ms',
				budget: null,
				baseline: against
			}
		];
	});
}
