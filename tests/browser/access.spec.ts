import { expect, test } from './world';

import { as, base, documentId, go, pick, ready, setUpTwoStep, said } from './people';

test('three levels in one go, and the answer to why', async ({ browser }) => {
	const [tomas, oke, rhosyn] = [
		await as(browser, 'tomas'),
		await as(browser, 'oke'),
		await as(browser, 'rhosyn')
	];
	const { folder } = await documentId(tomas, 'VFT-ST-TB-FN-DR-0105');
	// Before: Marine works may look at the shelves of Structures, no more.
	await go(oke, `/vft/place/${folder}`);
	await expect(oke.getByText('you may only look here')).toBeVisible();
	await oke.getByRole('link', { name: 'Access', exact: true }).click();
	await ready(oke);
	await oke.getByRole('button', { name: 'Why do I have this level?' }).click();
	await expect(oke.getByRole('heading', { name: 'Why can Oke Lindvar view here?' })).toBeVisible();
	await expect(
		oke.getByText(/^View through Marine works, given on Structures by Ines Maddock/)
	).toBeVisible();

	await go(tomas, `/vft/access/${folder}`);
	const list = tomas.getByLabel('Whom to let in');
	await list.fill('Oke Lindvar, Remark\nRhosyn Hale <rhosyn@vennholm.example>\tDownload\nNobody Atall, Work');
	await expect(tomas.getByText('Nobody here is called “Nobody Atall”')).toBeVisible();
	await expect(tomas.getByRole('button', { name: 'Let in and tell them' })).toBeDisabled();
	await list.fill('Rhosyn Hale <rhosyn@vennholm.example>\tDownload\nMaj Torvane, Work, 31 Dec 2027');
	// Whoever is not pasted is picked: by the beginning of a name, with the keyboard or with the mouse.
	const picker = tomas.getByLabel('Person, department, group or mail address');
	await pick(tomas.getByRole('combobox', { name: 'Level', exact: true }), 'Remark');
	await picker.fill('oke');
	await tomas.keyboard.press('Enter');
	await expect(list).toHaveValue(/Maj Torvane, Work, 31 Dec 2027\nOke Lindvar, Remark$/);
	await expect(picker).toHaveValue('');
	await picker.fill('sunn@tarn.example');
	await tomas.getByRole('option', { name: /sunn@tarn\.example/ }).click();
	await expect(tomas.getByRole('list', { name: 'As read' })).toContainText('from outside, sunn@tarn.example');
	await list.fill((await list.inputValue()).replace(/\nsunn.*/, ''));
	await tomas.getByLabel('A note to them').fill('The piles meet the quay wall here.');
	await tomas.getByRole('button', { name: 'Let in and tell them' }).click();
	await expect(tomas.getByRole('row', { name: /Maj Torvane.*here, Tomas/ })).toBeVisible();
	await expect(tomas.getByLabel('Level of Oke Lindvar')).toContainText('Remark');
	await expect(tomas.getByLabel('Level of Rhosyn Hale')).toContainText('Download');

	// Hers shows at once, with the reasoning, and a notice under the bell.
	await expect(oke.getByRole('heading', { name: 'Why can Oke Lindvar remark here?' })).toBeVisible();
	await expect(oke.getByText(/Marine works also has View.*The higher one holds\./)).toBeVisible();
	await go(rhosyn, '/vft/notices');
	await expect(
		rhosyn.getByRole('link', { name: /Tomas Verrin let you into Foundations.*quay wall/ })
	).toBeVisible();

	// A level that is set is a proposal, by the arrow key too: nothing happens until it is said (A13).
	const row = tomas.getByRole('row', { name: /Maj Torvane/ });
	const level = tomas.getByLabel('Level of Maj Torvane');
	await level.focus();
	await tomas.keyboard.press('ArrowUp');
	await expect(tomas.getByRole('option', { name: 'Work' })).toBeVisible();
	await tomas.keyboard.press('ArrowUp');
	await tomas.keyboard.press('Enter');
	await expect(row.getByRole('status')).toContainText('Work → ');
	await row.getByRole('button', { name: 'Leave as it is' }).click();
	await expect(level).toContainText('Work');
	await pick(level, 'Download');
	await row.getByRole('button', { name: 'Change to Download' }).click();
	await said(tomas, 'Maj Torvane: Work became Download.');
	await tomas.getByRole('button', { name: 'Take back' }).click();
	await expect(level).toContainText('Work');

	// Ending says what it means first.
	await tomas
		.getByRole('row', { name: /Maj Torvane/ })
		.getByRole('button', { name: 'End' })
		.click();
	await expect(tomas.getByRole('dialog')).toContainText('1 person');
	await tomas.getByRole('dialog').getByRole('button', { name: 'End it' }).click();
	await expect(tomas.getByLabel('Level of Maj Torvane')).toHaveCount(0);
});

test('files come in through a hatch from somebody who sees nothing, and are sorted', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	const { folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	await go(ines, `/vft/place/${folder}`);
	await ines.getByRole('button', { name: /^Folder/ }).click();
	await ines.getByRole('menuitem', { name: 'Open a hatch…' }).click();
	await ines.getByLabel('What is asked for').fill('Fabrication drawings of the flaps');
	await ines.getByLabel(/Kinds of file/).fill('pdf txt');
	await ines.getByRole('button', { name: 'Open hatch' }).click();
	const link = await ines.getByLabel('Link', { exact: true }).inputValue();
	await ines.getByRole('button', { name: 'Done' }).click();

	const tarn = await (await browser.newContext({ baseURL: base() })).newPage();
	await go(tarn, new URL(link).pathname);
	await expect(tarn.getByText('Fabrication drawings of the flaps')).toBeVisible();
	await expect(tarn.locator('body')).not.toContainText('Linkspan');
	await tarn.getByLabel('Your name and company').fill('Kaja Dorn, Tarn Steelwork');
	const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
	await tarn
		.getByLabel('Choose files')
		.setInputFiles([
			file('flap one.txt', 'flap one'),
			file('flap two.txt', 'flap two'),
			file('flap three.txt', 'flap three'),
			file('tool.exe', 'MZ')
		]);
	await expect(tarn.getByText('Not one of .pdf, .txt.')).toBeVisible();
	await tarn.getByRole('button', { name: 'Put in 3 files' }).click();
	await expect(tarn.getByText('3 files arrived.')).toBeVisible();
	await tarn.reload();
	await ready(tarn);
	await expect(tarn.locator('body')).not.toContainText('flap one');

	await go(ines, '/vft/arrivals');
	const row = ines.getByRole('row', { name: /flap two\.txt/ });
	await row.getByRole('button', { name: 'Sort in…' }).click();
	await ines.getByLabel('Number of flap two.txt').fill('VFT-MW-LS-00-RP-0777');
	await ines.getByLabel('Title of flap two.txt').fill('Flap two');
	await ines.getByRole('dialog').getByRole('button', { name: 'Sort in' }).click();
	await expect(ines.getByRole('row', { name: /flap two\.txt.*sorted/ })).toBeVisible();
	// The others together: one as a document of its own, one as the next version of what is there by now.
	for (const name of ['flap one.txt', 'flap three.txt']) await ines.getByLabel(`Tick ${name}`).check();
	await ines.getByRole('button', { name: 'Sort in 2 files…' }).click();
	const dialog = ines.getByRole('dialog');
	const proposed = (name: string) => dialog.getByLabel(`Number of ${name}`).inputValue();
	await expect(dialog.getByLabel('Number of flap one.txt')).toBeEnabled();
	expect(await proposed('flap one.txt')).not.toBe(await proposed('flap three.txt'));
	await dialog.getByLabel('Number of flap three.txt').fill('VFT-MW-LS-00-RP-0777');
	await dialog.getByLabel('Number of flap three.txt').press('Tab');
	await expect(dialog.getByText('next version after P01.1')).toBeVisible();
	await dialog.getByRole('button', { name: 'Sort in 2 files' }).click();
	await said(ines, '2 files are on their shelves.');
	await ines.goto('/vft/find?q=VFT-MW-LS-00-RP-0777');
	await expect(ines.getByText('P01.2')).toBeVisible();
	await expect(ines.getByRole('link', { name: /Flap two/ }).first()).toBeVisible();
});

test('a pass with a password is used, then withdrawn, and the open tab stops', async ({ browser }) => {
	const oke = await as(browser, 'oke');
	const { folder } = await documentId(oke, 'VFT-MW-QW-00-DR-0301');
	await go(oke, `/vft/place/${folder}`);
	await oke.getByRole('button', { name: /^Folder/ }).click();
	await oke.getByRole('menuitem', { name: 'Make a pass…' }).click();
	const dialog = oke.getByRole('dialog');
	await dialog.getByLabel('For whom, as you call them').fill('The diving company');
	await dialog.getByLabel('Anyone who holds the link').check();
	await dialog.getByLabel('Password, if any').fill('low water springs');
	await dialog.getByRole('button', { name: 'Make pass' }).click();
	const link = await dialog.getByLabel('Link', { exact: true }).inputValue();
	await dialog.getByRole('button', { name: 'Done' }).click();

	const diver = await (await browser.newContext({ baseURL: base() })).newPage();
	await go(diver, new URL(link).pathname);
	await diver.getByLabel('Password of this pass').fill('high water');
	await diver.getByRole('button', { name: 'Open' }).click();
	await expect(diver.getByText('That is not right.')).toBeVisible();
	await diver.getByLabel('Password of this pass').fill('low water springs');
	await diver.getByRole('button', { name: 'Open' }).click();
	await expect(diver.getByRole('heading', { name: 'Quay wall' })).toBeVisible();
	await expect(diver.getByRole('link', { name: 'Download' })).toHaveCount(0);

	await go(oke, '/vft/passes');
	const row = oke.getByRole('row', { name: /The diving company/ });
	await expect(row).toContainText('with a password');
	await expect(row.getByRole('cell').nth(5)).toHaveText('1');
	// Its address is there again for who made it; a change that makes it wider is asked about, and asks anew when narrower.
	await row.getByRole('button', { name: 'Address' }).click();
	await expect(oke.getByRole('dialog').getByLabel('Link', { exact: true })).toHaveValue(link);
	await oke.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).last().click();
	await row.getByRole('button', { name: 'Change' }).click();
	await oke.getByRole('dialog').getByLabel('view and download').check();
	await oke.getByRole('button', { name: 'Change the pass' }).click();
	await expect(oke.getByRole('dialog').getByRole('alert')).toContainText('files may be taken');
	await oke.getByRole('button', { name: 'Make it wider' }).click();
	await expect(row).toContainText('view and download');
	await row.getByRole('button', { name: 'Change' }).click();
	await oke.getByRole('dialog').getByLabel('Another password').fill('neap tide in May');
	await oke.getByRole('button', { name: 'Change the pass' }).click();
	await expect(oke.getByRole('dialog')).toHaveCount(0);
	await expect(diver.getByLabel('Password of this pass')).toBeVisible();

	await row.getByRole('button', { name: 'Withdraw' }).click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Withdraw' }).click();
	await expect(oke.getByRole('row', { name: /The diving company/ })).toHaveCount(0);
	// Nobody touches the diver's tab.
	await expect(diver.getByText('This pass was withdrawn. Ask the sender for a new one.')).toBeVisible();
});

test('a controller looks as somebody else, marked and without changing anything', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	await go(ines, `/vft/access/${(await documentId(ines, 'VFT-MW-LS-00-DR-0101')).folder}`);
	await ines.getByRole('button', { name: 'Try as…' }).click();
	await pick(ines.getByRole('combobox', { name: 'Person', exact: true }), /^Sefa Tuimala/);
	await ines.getByRole('button', { name: 'Look as them' }).click();
	// Sefa does not reach this folder, so neither does whoever looks as her.
	await expect(ines.getByText('There is nothing here, or nothing that you may look at.')).toBeVisible();
	await go(ines, '/vft/shelves');
	await expect(ines.getByText('You are looking as Sefa Tuimala.')).toBeVisible();
	await expect(ines.getByRole('region', { name: 'Structures' })).toHaveCount(0);
	await ines.getByRole('button', { name: 'End' }).click();
	await expect(ines.getByRole('region', { name: 'Structures' })).toBeVisible();
});

test('two-step sign-in asks for a code, and a recovery code opens once', async ({ browser }) => {
	const lumi = await as(browser, 'lumi');
	const { recovery } = await setUpTwoStep(lumi);
	const page = await (await browser.newContext({ baseURL: base() })).newPage();
	const password = async () => {
		await go(page, '/sign-in');
		await page.getByLabel('Mail address').fill('lumi@vennholm.example');
		await page.getByLabel('Password').fill('cupboard-demo');
		await page.getByRole('button', { name: 'Sign in' }).click();
	};
	await password();
	const code = page.getByLabel(/Code from your authenticator/);
	await code.fill('000000');
	await page.getByRole('button', { name: 'Go on' }).click();
	await expect(page.getByText('The code is wrong')).toBeVisible();
	expect((await page.request.get('/api/v1/projects')).status()).toBe(401);
	await code.fill(recovery[0]!);
	await page.getByRole('button', { name: 'Go on' }).click();
	await page.waitForURL(/\/vft\/shelves/);
	await page.context().clearCookies();
	await password();
	await code.fill(recovery[0]!);
	await page.getByRole('button', { name: 'Go on' }).click();
	await expect(page.getByText('The code is wrong')).toBeVisible();
});
