import {
	expect,
	type Browser,
	type BrowserContextOptions,
	type Locator,
	type Page,
	type WebSocketRoute
} from '@playwright/test';
import { requestOf, type AnswerOf, type InputOf } from '../../src/lib/client/cupboard';
import type { Contracts } from '../../src/lib/contract';
import { API } from '../../src/lib/core/acts/api';
import { timeCode } from '../time-code';
import { seat, worn } from './seats';
import { world } from './world';

export const base = () => world().origin;

/** What was said by the way on each page: such a sentence stays a few seconds, and a machine may stand still as long. */
const sentences = new WeakMap<Page, string[]>();

/** Begins what the page writes to its console when it says something; a binding would hinder the cutting of lines. */
const SAID = 'said by the way: ';

/** Notes what a page says. */
async function listen(page: Page): Promise<void> {
	page.on('console', (message) => {
		if (message.text().startsWith(SAID)) sentences.get(page)!.push(message.text().slice(SAID.length));
	});
	await page.addInitScript((begin) => {
		new MutationObserver((changes) => {
			for (const node of changes.flatMap(({ addedNodes }) => [...addedNodes]))
				if (node instanceof Element)
					for (const title of node.querySelectorAll('[data-sonner-toast] [data-title]'))
						console.debug(begin + (title.textContent ?? ''));
		}).observe(document, { childList: true, subtree: true });
	}, SAID);
}

/** Waits until a sentence was said by the way on a page opened by `as`, since the last one that was waited for. */
export async function said(page: Page, what: string | RegExp): Promise<void> {
	const list = sentences.get(page)!;
	const fits = (one: string) => (typeof what === 'string' ? one.includes(what) : what.test(one));
	await expect
		.poll(() => list.some(fits) || `Only this was said: ${list.join(' | ')}`, {
			timeout: 90_000,
			message: `said: ${what}`
		})
		.toBe(true);
	list.splice(0, list.findIndex(fits) + 1);
}

/** A page that differs from others in something, such as its size. */
async function ownPage(browser: Browser, options: BrowserContextOptions): Promise<Page> {
	const context = await browser.newContext({ baseURL: base(), acceptDownloads: true, ...options });
	return context.newPage();
}

/** A page of a person of the demo world who is signed in, in a browser context of their own; it has gone nowhere yet. */
export async function as(browser: Browser, who: string, options: BrowserContextOptions = {}): Promise<Page> {
	const storageState = world().sessions.get(who);
	const { page, fresh } = Object.keys(options).length
		? { page: await ownPage(browser, options), fresh: true }
		: await seat(browser, base());
	const context = page.context();
	if (fresh) await listen(page);
	sentences.set(page, []);
	page.on('pageerror', (error) => {
		throw error;
	});
	if (storageState) await context.addCookies(storageState.cookies);
	origins.set(page, options.baseURL ?? base());
	if (storageState && (await context.request.get('/api/v1/me/sessions')).ok()) return page;
	await page.goto('/sign-in');
	await ready(page);
	await page.getByLabel('Mail address').fill(`${who}@vennholm.example`);
	await page.getByLabel('Password').fill('cupboard-demo');
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL((url) => url.pathname !== '/sign-in');
	world().sessions.set(who, await context.storageState());
	return page;
}

/** Where the server of each page is, also before it went anywhere. */
const origins = new WeakMap<Page, string>();
const originOf = (page: Page) => origins.get(page) ?? new URL(page.url()).origin;

/** Waits until the page answers to clicks. */
export async function ready(page: Page): Promise<void> {
	await page.locator('[data-ready]').waitFor({ state: 'attached' });
}

/** Opens a page, and waits until it answers to clicks. */
export async function go(page: Page, to: string): Promise<void> {
	await page.goto(to);
	await ready(page);
}

/** Chooses one of a field's few by what it is called. */
export async function pick(field: Locator, option: string | RegExp): Promise<void> {
	await field.click();
	await field.page().getByRole('option', { name: option, exact: true }).click();
}

/** The id of a document by its number, as the person of the page finds it. */
export async function documentId(page: Page, number: string): Promise<{ id: string; folder: string }> {
	const answer = await page.request.get(`/api/v1/projects/VFT/find?q=${number}`);
	const { rows } = (await answer.json()) as { rows: { id: string; folder: string; number: string }[] };
	const row = rows.find((r) => r.number === number);
	expect(row, number).toBeDefined();
	return row!;
}

/** Does something by the API as the person of the page, to set the scene for what is tried by hand. */
export async function act<N extends keyof Contracts>(
	page: Page,
	name: N,
	input: InputOf<N>
): Promise<AnswerOf<N>> {
	const origin = originOf(page);
	const { method, path, body } = requestOf(name, input);
	const answer = await page.request.fetch(origin + API + path, { method, headers: { origin }, data: body });
	expect(answer.ok(), await answer.text()).toBe(true);
	return (await answer.json()) as AnswerOf<N>;
}

/** Sends bytes as the person of the page; gives the upload, to be used in an act. */
export async function sendBytes(page: Page, name: string, content: string | Buffer): Promise<string> {
	const origin = originOf(page);
	const answer = await page.request.post(
		`${origin}/api/v1/uploads?project=VFT&name=${encodeURIComponent(name)}`,
		{
			headers: { origin, 'content-type': 'application/octet-stream' },
			data: Buffer.from(content as string)
		}
	);
	expect(answer.ok(), await answer.text()).toBe(true);
	return ((await answer.json()) as { upload: string }).upload;
}

/** Lets a test cut somebody's line to what several edit at once, and bring it back. */
export async function cuttable(page: Page) {
	const open = new Set<WebSocketRoute>();
	let up = true;
	worn(page);
	await page.routeWebSocket(/\/live\/rooms\//, async (route) => {
		if (!up) return void (await route.close());
		open.add(route);
		route.connectToServer();
	});
	return {
		async cut() {
			up = false;
			await Promise.all([...open].map((route) => route.close()));
			open.clear();
		},
		back() {
			up = true;
		}
	};
}

/** What can be done with a document beyond its buttons, opened. */
async function actions(page: Page, within: Page | Locator): Promise<void> {
	await within.getByRole('button', { name: 'Actions', exact: true }).click();
	await expect(page.getByRole('menu')).toBeVisible();
}

/** Chooses from what can be done with a document. */
export async function choose(page: Page, word: string, within: Page | Locator = page): Promise<void> {
	await actions(page, within);
	await page.getByRole('menuitem', { name: word }).click();
}

/** Waits until something can be done with a document, or cannot any more. */
export async function offered(page: Page, word: string, yes = true): Promise<void> {
	await actions(page, page);
	await expect(page.getByRole('menuitem', { name: word })).toHaveCount(yes ? 1 : 0);
	await page.keyboard.press('Escape');
	await expect(page.getByRole('menu')).toBeHidden();
}

/** Sets up two-step sign-in on one's own page, as an authenticator is told. @returns its key, and the recovery codes */
export async function setUpTwoStep(page: Page): Promise<{ key: string; recovery: string[] }> {
	await page.goto('/me');
	await ready(page);
	await page.getByLabel('Your password', { exact: true }).fill('cupboard-demo');
	await page.getByRole('button', { name: 'Set it up' }).click();
	const key = await page
		.locator('code')
		.filter({ hasText: /^[A-Z2-7]{16,}$/ })
		.innerText();
	const recovery = await page.locator('ul.font-mono li').allInnerTexts();
	await page.getByLabel('Code that the authenticator shows').fill(timeCode(key));
	await page.getByRole('button', { name: 'Turn it on' }).click();
	await expect(page.getByText('It is on:')).toBeVisible();
	return { key, recovery };
}
