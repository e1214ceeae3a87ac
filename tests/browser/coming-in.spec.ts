import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, world, type Browser, type Page } from './world';
import { as, base, go, ready, said } from './people';

/** The link of a kind that came to somebody by mail last. */
async function linkMailed(to: string, way: 'invited' | 'renew', before = ''): Promise<string> {
	const folder = join(world().home, 'mail');
	let link = '';
	await expect
		.poll(() => {
			const mails = readdirSync(folder)
				.map((name) => readFileSync(join(folder, name), 'utf8'))
				.filter((text) => text.includes(to));
			const links = mails.flatMap((text) => new RegExp(`/${way}/[\\w-]+`).exec(text)?.[0] ?? []);
			return (link = links.find((one) => one !== before) ?? '');
		})
		.not.toBe('');
	return link;
}

async function onPhone(browser: Browser): Promise<Page> {
	const context = await browser.newContext({ baseURL: base(), viewport: { width: 390, height: 844 } });
	return context.newPage();
}
async function signIn(page: Page, email: string, password: string): Promise<void> {
	await go(page, '/sign-in');
	await page.getByLabel('Mail address').fill(email);
	await page.getByLabel('Password').fill(password);
	await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a forgotten password is renewed on a phone, and the session elsewhere ends', async ({ browser }) => {
	const elsewhere = await as(browser, 'ruan');
	const phone = await onPhone(browser);
	const email = 'ruan@vennholm.example';
	await go(phone, '/sign-in');
	await phone.getByRole('link', { name: 'Forgotten your password?' }).click();
	await ready(phone);
	await phone.getByLabel('Mail address that you sign in with').fill(email);
	await phone.getByRole('button', { name: 'Send me a link' }).click();
	await expect(phone.getByText('a mail with a link is on its way')).toBeVisible();
	const link = await linkMailed(email, 'renew');
	await go(phone, link);
	const password = phone.getByLabel(/New password/);
	await password.fill(email);
	await phone.getByRole('button', { name: 'Set password' }).click();
	await expect(phone.getByRole('alert')).toBeVisible();
	await password.fill('the tide turns at noon');
	await phone.getByRole('button', { name: 'Set password' }).click();
	await expect(phone.getByText('Your new password is set. Sign in with it.')).toBeVisible();
	// Back to the link: it is over.
	await phone.goto(link);
	await expect(phone.getByRole('heading', { name: 'This link is over' })).toBeVisible();
	await signIn(phone, email, 'cupboard-demo');
	await expect(phone.getByText('do not fit together')).toBeVisible();
	await signIn(phone, email, 'the tide turns at noon');
	await phone.waitForURL(/\/vft\/shelves/);
	await elsewhere.goto('/vft/shelves');
	await expect(elsewhere).toHaveURL(/\/sign-in/);
});

test('who never came in is invited again, comes in under a name of their own, and is kept out for a time', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	const email = 'b.hollin@tarnsteel.example';
	const open = async (name: string) => {
		await go(ines, '/vft/people');
		await ines
			.locator('li, tr, div')
			.filter({ hasText: email })
			.last()
			.getByRole('button', { name: 'Change' })
			.click();
		await expect(ines.getByRole('dialog', { name })).toBeVisible();
		return ines.getByRole('dialog');
	};
	await (await open('Bo Hollin')).getByRole('button', { name: 'Invite again' }).click();
	await said(ines, /new invitation|invited again/i);

	const bo = await onPhone(browser);
	await go(bo, await linkMailed(email, 'invited'));
	await expect(bo.getByRole('heading', { name: 'Welcome, Bo Hollin' })).toBeVisible();
	await bo.getByLabel('Your name, as others see it').fill('Bo H. Hollin');
	await bo.getByLabel(/Choose a password/).fill('shop drawings in the rain');
	await bo.getByRole('button', { name: 'Set password and sign in' }).click();
	await bo.waitForURL(/\/vft/);

	// What the dialog says a moment later moves nothing that is about to be pressed.
	let answer = () => {};
	const asked = new Promise<void>((go) => (answer = go));
	await ines.route('**/effect**', (route) => asked.then(() => route.continue()));
	const dialog = await open('Bo H. Hollin');
	const places = () =>
		Promise.all(
			[dialog.getByText('Keep out for a time…'), dialog.getByRole('button', { name: 'Change' })].map((at) =>
				at.boundingBox()
			)
		);
	const before = await places();
	answer();
	await expect(dialog.getByRole('status')).not.toHaveText('Working out what that means…');
	expect(await places()).toEqual(before);
	await dialog.getByText('Keep out for a time…').click();
	await dialog.getByLabel('Reason for keeping out').fill('The laptop was stolen.');
	await dialog.getByRole('button', { name: 'Keep out' }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
	await signIn(bo, email, 'shop drawings in the rain');
	await expect(bo.getByText('Linkspan')).toHaveCount(0);
	await (await open('Bo H. Hollin')).getByRole('button', { name: 'Let back in' }).click();
	await expect(ines.getByRole('dialog')).toHaveCount(0);
	await bo.goto('/vft/shelves');
	await expect(bo.getByText('Linkspan').first()).toBeVisible();
});
