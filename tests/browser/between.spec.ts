import { act, as, documentId, go } from './people';
import { expect, test, type Page } from './world';

/** What stands at the head of a document when Ines has it in hand. */
const inHand = (page: Page) => page.locator('h1 ~ span').getByText('Ines Maddock');

/** Lets what matches go to the server, and holds its answer until it is let go. */
async function held(page: Page, what: RegExp) {
	let letGo = () => {};
	const free = new Promise<void>((done) => (letGo = done));
	let came = () => {};
	const asked = new Promise<void>((done) => (came = done));
	await page.route(what, async (route) => {
		const answer = await route.fetch();
		came();
		await free;
		await route.fulfill({ response: answer });
	});
	return { asked, letGo };
}

test('what others do while a page is on its way is not missed', async ({ browser }) => {
	const [oke, ines] = await Promise.all([as(browser, 'oke'), as(browser, 'ines')]);
	const { id, folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0102');

	// The page was read, and its line to the server is not there yet.
	let line = () => {};
	const free = new Promise<void>((done) => (line = done));
	await oke.route(/\/api\/v1\/live\?/, async (route) => {
		await free;
		await route.continue();
	});
	await go(oke, `/vft/document/${id}`);
	await act(ines, 'takeLock', { document: id, purpose: 'Flap hinges' });
	line();
	await expect(inHand(oke)).toBeVisible();
	await oke.unroute(/\/api\/v1\/live\?/);
	await act(ines, 'giveBackLock', { document: id });
	await expect(inHand(oke)).toHaveCount(0);

	// On the way from the folder to the document, which was read before the change and comes after it.
	await go(oke, `/vft/place/${folder}`);
	const data = await held(oke, new RegExp(`/vft/document/${id}/__data\\.json`));
	await oke
		.getByRole('row', { name: /DR-0102/ })
		.first()
		.dblclick();
	await data.asked;
	await act(ines, 'takeLock', { document: id, purpose: 'Flap bearings' });
	// Whatever page is shown has heard of it by now.
	await expect(oke.getByRole('row', { name: /DR-0102/ }).first()).toContainText('Ines');
	data.letGo();
	await expect(oke).toHaveURL(new RegExp(`/document/${id}`));
	await expect(inHand(oke)).toBeVisible();
	await oke.unrouteAll({ behavior: 'ignoreErrors' });
});

test('the next document, which was read ahead, is shown as it is and not as it was', async ({ browser }) => {
	const [oke, ines] = await Promise.all([as(browser, 'oke'), as(browser, 'ines')]);
	const { folder } = await documentId(oke, 'VFT-MW-LS-00-DR-0120');
	await go(oke, `/vft/place/${folder}`);
	await oke.getByLabel('Filter this list').fill('deck panel');
	const first = await oke.locator('[data-document]').first().getAttribute('data-document');
	// The folder may be asked for again meanwhile.
	const read = (url: string) => /\/document\/(\w+)\/__data/.exec(url)?.[1];
	const ahead = oke.waitForResponse((answer) => ![undefined, first].includes(read(answer.url())));
	await oke.locator('[data-document]').first().dblclick();
	const id = read((await ahead).url())!;
	const heard = oke.waitForResponse(/\/notices\?/);
	await act(ines, 'takeLock', { document: id, purpose: 'Panel joints' });
	await heard;
	await oke.keyboard.press('n');
	await expect(oke).toHaveURL(new RegExp(id));
	await expect(inHand(oke)).toBeVisible();
});

test('a page outlasts a line that breaks while it is asked for again, with what is typed in it', async ({
	browser
}) => {
	const [oke, ines] = await Promise.all([as(browser, 'oke'), as(browser, 'ines')]);
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0302');
	await go(oke, '/vft/in-hand');
	const field = oke.getByRole('search').getByRole('textbox');
	await field.fill('bearing plates');
	// What somebody does is heard of, and asking for it finds no line.
	let tries = 0;
	await oke.route(/\/__data\.json/, (route) => {
		tries++;
		return route.abort('internetdisconnected');
	});
	await act(ines, 'takeLock', { document: id, purpose: 'Which plates?' });
	await expect.poll(() => tries).toBeGreaterThan(1);
	await expect(field).toHaveValue('bearing plates');
	await oke.unroute(/\/__data\.json/);
	await expect(oke.getByText('Which plates?')).toBeVisible();
	await expect(field).toHaveValue('bearing plates');
});
