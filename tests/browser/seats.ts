import type { Browser, BrowserContext, Page } from '@playwright/test';

/** The size of the screens at seats, as in playwright.config. */
const SCREEN = { width: 1280, height: 800 };
/** What tests listen to. */
const HEARD = ['dialog', 'pageerror', 'request', 'response'] as const;
/** What is not wiped by then is thrown away, in milliseconds. */
const MOST = 10_000;

/** Pages at which somebody sits or sat, each in a browser context of its own. */
const seats = new Set<Page>();
const free: Page[] = [];

/**
 * A page that nobody sits at: one that somebody left, wiped, or a new one. In one that was left, the scripts and letters
 * of the application are read already, which is half of the work of a first look.
 * @returns the page, and whether it is new
 */
export async function seat(browser: Browser, baseURL: string): Promise<{ page: Page; fresh: boolean }> {
	const left = free.pop();
	if (left) return { page: left, fresh: false };
	const context = await browser.newContext({ baseURL, acceptDownloads: true });
	const page = await context.newPage();
	seats.add(page);
	return { page, fresh: true };
}

/** For what cannot be wiped: nobody sits at this page after the test. */
export const worn = (page: Page): void => void seats.delete(page);

/** Everybody leaves: seats are wiped, and other contexts closed. */
export async function leave(browser: Browser, origin: string): Promise<void> {
	free.length = 0;
	await Promise.all(
		browser.contexts().map(async (context) => {
			const page = context.pages().find((one) => seats.has(one));
			if (page && (await wiped(context, page, origin))) free.push(page);
			else {
				if (page) seats.delete(page);
				await context.close();
			}
		})
	);
}

/** Wipes what somebody left at a page, but for scripts and letters; false when it did not come to that. */
async function wiped(context: BrowserContext, page: Page, origin: string): Promise<boolean> {
	const late = new Promise<false>((done) => setTimeout(done, MOST, false).unref());
	const wiping = async () => {
		for (const event of HEARD) page.removeAllListeners(event);
		const others = context.pages().filter((other) => other !== page);
		await Promise.all(others.map((other) => other.close()));
		await Promise.all([context.unrouteAll(), page.unrouteAll(), context.setOffline(false)]);
		// Without its own last words: what was not kept is nobody's any more.
		await page.evaluate(() =>
			addEventListener('beforeunload', (event) => event.stopImmediatePropagation(), true)
		);
		await page.goto(`${origin}/favicon.svg`);
		await page.evaluate(() => sessionStorage.clear());
		const control = await context.newCDPSession(page);
		await control.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
		await control.send('Page.resetNavigationHistory');
		await control.detach();
		await Promise.all([
			context.clearCookies(),
			context.clearPermissions(),
			page.setViewportSize(SCREEN),
			page.emulateMedia({ media: null, colorScheme: null, reducedMotion: null })
		]);
		return true;
	};
	return Promise.race([wiping().catch(() => false), late]);
}
