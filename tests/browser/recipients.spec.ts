import { execFileSync } from 'node:child_process';
import { expect, test, type Page } from './world';
import { as, base, documentId, go, pick, ready } from './people';

/** The words of a PDF that is taken from a menu. */
async function taken(page: Page, menu: string, entry: string): Promise<string> {
	await page.getByRole('button', { name: menu }).click();
	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('menuitem', { name: entry }).click()
	]);
	return execFileSync('pdftotext', ['-layout', await download.path(), '-'], { encoding: 'utf8' });
}

/** The numbers of the two documents as a release lists them. */
const ordered = (page: Page) =>
	page.getByRole('table', { name: 'Documents of the release' }).getByText(/^VFT-/).allTextContents();

/** Puts the documents of a release in another order. */
async function inOrder(page: Page, moving: () => Promise<void>) {
	await page.getByRole('button', { name: 'Order…' }).click();
	await expect(page.getByRole('button', { name: 'List them so' })).toBeDisabled();
	// No place is about to be typed over, and no keyboard comes up on a phone.
	await expect(page.getByRole('button', { name: 'Close' })).toBeFocused();
	await moving();
	await page.getByRole('button', { name: 'List them so' }).click();
	await expect(page.getByRole('dialog')).toHaveCount(0);
}

const [ONE, OTHER] = ['VFT-MW-LS-00-DR-0127', 'VFT-MW-LS-00-DR-0128'];

test('a release goes to three by the distribution list, each with their own; two verdicts differ and one is made of them', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	const dialog = ines.getByRole('dialog');

	await test.step('Ines writes a rule: the planning authority gets what Marine works makes', async () => {
		await go(ines, '/vft/settings/releases');
		await ines.getByRole('button', { name: 'Add a rule' }).click();
		const rule = ines.getByRole('region', { name: 'Rule 4' });
		await expect(ines.getByRole('button', { name: 'Change the distribution list' })).toBeDisabled();
		await rule.getByLabel('Who gets it by rule 4').click();
		await ines.getByRole('option', { name: /Runa Stave/ }).click();
		await rule.getByLabel('Departments of rule 4').fill('mw');
		await rule.getByLabel('Zones of rule 4').fill('ls');
		await rule.getByLabel('Types of rule 4').focus();
		await expect(rule).toContainText(
			'Runa Stave gets documents of department MW in zone LS, for any purpose.'
		);
		await ines.getByRole('button', { name: 'Change the distribution list' }).click();
		await expect(ines.getByRole('button', { name: 'Change the distribution list' })).toBeDisabled();
	});

	await test.step('a release is proposed to those whose rules fit; one more is added, and gets a part', async () => {
		const { folder } = await documentId(ines, ONE);
		await go(ines, `/vft/place/${folder}`);
		for (const number of [ONE, OTHER])
			await ines
				.getByRole('row', { name: new RegExp(number) })
				.getByRole('checkbox')
				.check();
		await ines.getByRole('button', { name: '2 ticked' }).click();
		await ines.getByRole('menuitem', { name: /Put in release/ }).click();
		await dialog.getByLabel('Title').fill('Drip pan and bearing for approval');
		await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For approval');
		await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
		for (const name of ['Maren Aldgate', 'Runa Stave'])
			await expect(dialog.getByText(name, { exact: true })).toBeVisible();
		await dialog.getByRole('combobox', { name: 'To', exact: true }).click();
		await ines.getByRole('option', { name: /^Kaja Dorn/ }).click();
		await dialog.getByLabel('What is asked of Kaja Dorn').click();
		await ines.getByRole('option', { name: 'that they confirm receipt' }).click();
		await dialog.getByLabel('What you say to them, in the cover note and the mail').fill('The pan is new.');
		await pick(dialog.getByRole('combobox', { name: 'In groups' }), 'by department');
		await dialog.getByRole('button', { name: 'Build release' }).click();
		await ines.waitForURL(/\/releases\/\d+/);
		await expect(
			ines.getByRole('table', { name: 'Documents of the release' }).getByText('Marine works')
		).toBeVisible();
		await ines.getByRole('button', { name: 'Choose what Kaja Dorn gets' }).click();
		await dialog
			.getByRole('row', { name: new RegExp(OTHER) })
			.getByRole('checkbox')
			.uncheck();
		await dialog.getByRole('button', { name: 'Choose these' }).click();
		await expect(ines.getByRole('row', { name: /Kaja Dorn/ })).toContainText('1 of 2');
		await expect.poll(() => ordered(ines)).toEqual([ONE, OTHER]);
		await inOrder(ines, async () => {
			const from = (await dialog.getByRole('button', { name: `Move ${OTHER}` }).boundingBox())!;
			const to = (await dialog.getByRole('button', { name: `Move ${ONE}` }).boundingBox())!;
			await ines.mouse.move(from.x + 10, from.y + 10);
			await ines.mouse.down();
			await ines.mouse.move(from.x + 10, from.y, { steps: 4 });
			await ines.mouse.move(to.x + 10, to.y - 4, { steps: 8 });
			// What is dragged makes room for itself before it is let go.
			await expect(dialog.getByLabel(`Place of ${ONE}`)).toHaveValue('2');
			await ines.mouse.up();
		});
		await expect.poll(() => ordered(ines)).toEqual([OTHER, ONE]);
		// And back by the keys.
		await inOrder(ines, async () => {
			await dialog.getByRole('button', { name: `Move ${OTHER}` }).press('ArrowDown');
			await expect(dialog.getByRole('button', { name: `Move ${OTHER}` })).toBeFocused();
		});
		await expect.poll(() => ordered(ines)).toEqual([ONE, OTHER]);
		// And by typing places, where Enter does not send yet what one is still putting in order.
		await inOrder(ines, async () => {
			const place = (number: string) => dialog.getByLabel(`Place of ${number}`);
			await place(OTHER).fill('1');
			await place(OTHER).press('Enter');
			await expect(place(ONE)).toHaveValue('2');
		});
		await expect.poll(() => ordered(ines)).toEqual([OTHER, ONE]);
		await inOrder(ines, () => dialog.getByRole('button', { name: `Move ${ONE}` }).press('Home'));
		await expect.poll(() => ordered(ines)).toEqual([ONE, OTHER]);
		const note = ines.getByRole('link', { name: 'Preview the cover note for Kaja Dorn' });
		const drafted = await ines.request.get((await note.getAttribute('href'))!);
		expect(drafted.headers()['content-type']).toBe('application/pdf');
	});
	const way = new URL(ines.url()).pathname;
	const number = /\d+$/.exec(way)![0].padStart(4, '0');

	await test.step('it is approved and issued: a page says who gets what, and three passes go out', async () => {
		const reasons = ines.getByRole('button', { name: /^(All of these go out…|Goes out…)$/ });
		await reasons.first().click();
		await dialog.getByRole('textbox').fill('The client wants the whole set together.');
		await dialog.getByRole('button', { name: 'Goes out' }).click();
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review')).toBeVisible();
		const halla = await as(browser, 'halla');
		await go(halla, way);
		await expect(halla.getByRole('row', { name: /Kaja Dorn/ })).toContainText('receipt only');
		await halla.getByRole('button', { name: 'Approve' }).click();
		await halla.getByText(/Approved .* H Brandt/i).waitFor();
		await halla.context().close();
		await ines.getByRole('link', { name: 'Issue…' }).click();
		await ines.waitForURL(/\/issue$/);
		await ready(ines);
		const gets = ines.getByRole('table', { name: 'Who gets what' });
		await expect(gets.getByRole('row', { name: /Kaja Dorn/ })).toContainText(
			'1 of 2 documents, and not that there are others'
		);
		await ines.getByLabel(`Type ${number} to issue it`).fill(number);
		await ines.getByRole('button', { name: `Issue ${number}` }).click();
		await expect(ines.getByText('3 passes went out by mail')).toBeVisible();
	});
	const passOf = async (name: string) =>
		(await ines
			.getByRole('listitem')
			.filter({ hasText: `${name}:` })
			.getByRole('link', { name: /\/pass\// })
			.getAttribute('href'))!;
	const passes = [await passOf('Maren Aldgate'), await passOf('Runa Stave'), await passOf('Kaja Dorn')];

	await test.step('who only gets a part sees nothing of the rest, on a phone', async () => {
		const context = await browser.newContext({ baseURL: base(), viewport: { width: 390, height: 844 } });
		const kaja = await context.newPage();
		await go(kaja, passes[2]!);
		await expect(kaja.getByText(ONE)).toBeVisible();
		await expect(kaja.getByText(OTHER)).toHaveCount(0);
		await expect(kaja.getByText('The pan is new.')).toBeVisible();
		await expect(kaja.getByRole('radio')).toHaveCount(0);
		expect(await kaja.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
		await kaja.getByRole('button', { name: 'Confirm receipt' }).click();
		await expect(kaja.getByText('Receipt confirmed')).toBeVisible();
		await context.close();
		await expect(ines.getByRole('row', { name: /Kaja Dorn/ })).toContainText('received');
	});

	await test.step('two answer, and not alike', async () => {
		for (const [pass, code, remark] of [
			[passes[0], 'A', ''],
			[passes[1], 'C', 'The pan lies above the flood level of the plan.']
		] as const) {
			const context = await browser.newContext({ baseURL: base() });
			const client = await context.newPage();
			await go(client, pass!);
			await client
				.getByRole('radiogroup', { name: `Verdict on ${ONE}` })
				.getByRole('radio', { name: code })
				.click();
			await client
				.getByRole('radiogroup', { name: `Verdict on ${OTHER}` })
				.getByRole('radio', { name: 'A' })
				.click();
			if (remark) await client.getByLabel(`Remark on ${ONE}`).fill(remark);
			await client.getByRole('button', { name: 'Sign and send 2 verdicts' }).click();
			await expect(client.getByText('All verdicts are signed and sent')).toBeVisible();
			await context.close();
		}
		const row = ines.getByRole('row', { name: new RegExp(ONE) });
		await expect(row).toContainText('verdicts differ');
		await expect(ines.getByRole('row', { name: new RegExp(OTHER) })).toContainText('A accepted');
	});

	await test.step('Ines finds it on Today and makes one of them, with a reason', async () => {
		await go(ines, '/vft/today');
		const line = ines.getByRole('listitem').filter({ hasText: `Release ${number}` });
		await expect(line).toContainText('Verdicts on 1 document differ');
		await line.getByRole('link', { name: 'Make one of them' }).click();
		await ready(ines);
		await ines.getByRole('button', { name: `Make one of the verdicts on ${ONE}` }).click();
		await expect(dialog).toContainText('The pan lies above the flood level of the plan.');
		await pick(dialog.getByLabel('Verdict'), /^C,/);
		await dialog.getByLabel('Reason').fill('The level is part of the permit.');
		await dialog.getByRole('button', { name: 'Make it C' }).click();
		const row = ines.getByRole('row', { name: new RegExp(ONE) });
		await expect(row).toContainText('Ines Maddock: The level is part of the permit.');
		await expect(row.getByRole('button', { name: /Make one of/ })).toHaveCount(0);
		const said = await taken(ines, 'Comment sheet', 'PDF');
		for (const words of ['differ', 'The level is part of the permit.', 'Runa']) expect(said).toContain(words);
		await go(ines, '/vft/today');
		await expect(line).toHaveCount(0);
	});

	await test.step('what was said stands on the document, for its department to settle', async () => {
		const { id } = await documentId(ines, ONE);
		await go(ines, `/vft/document/${id}/remarks`);
		for (const said of [
			'The level is part of the permit.',
			'The pan lies above the flood level of the plan.'
		])
			await expect(ines.getByText(said).first()).toBeVisible();
	});
});

test('a calculation leaves with a stamp: looked at before, the same with the client, and the original stays', async ({
	browser
}) => {
	const NUMBER = 'VFT-MW-LS-00-CA-0008';
	const ines = await as(browser, 'ines');
	const dialog = ines.getByRole('dialog');
	const row = ines.getByRole('row', { name: new RegExp(NUMBER) });
	const wordsAt = async (page: Page, address: string) => {
		const answer = await page.request.get(address);
		expect(answer.status()).toBe(200);
		return execFileSync('pdftotext', ['-layout', '-', '-'], { input: await answer.body(), encoding: 'utf8' });
	};
	const { id, folder } = await documentId(ines, NUMBER);
	await go(ines, `/vft/place/${folder}`);
	await row.getByRole('checkbox').check();
	await ines.getByRole('button', { name: '1 ticked' }).click();
	await ines.getByRole('menuitem', { name: /Put in release/ }).click();
	await dialog.getByLabel('Title').fill('Calculation with its stamp');
	await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For information');
	await expect(dialog.getByText('Goes to, as the distribution list says')).toBeVisible();
	await dialog.getByLabel('with a stamp').check();
	await dialog.getByRole('button', { name: 'Build release' }).click();
	await ines.waitForURL(/\/releases\/\d+/);
	const number = /\d+$/.exec(ines.url())![0].padStart(4, '0');
	const stamp = new RegExp(`${NUMBER} \\S+ · S2 [^]*Release ${number} · \\d+ \\w{3} 20\\d\\d`);

	const goes = row.getByRole('link', { name: `${NUMBER} as it goes out: stamped` });
	expect(await wordsAt(ines, (await goes.getAttribute('href'))!)).toMatch(stamp);
	const reasons = ines.getByRole('button', { name: /^(All of these go out…|Goes out…)$/ });
	if (await reasons.count()) {
		await reasons.first().click();
		await dialog.getByRole('textbox').fill('It is only for information.');
		await dialog.getByRole('button', { name: 'Goes out' }).click();
	}
	await ines.getByRole('button', { name: 'Ask for approval' }).click();
	await expect(ines.getByText('in review')).toBeVisible();
	const way = new URL(ines.url()).pathname;
	for (const who of ['halla', 'tomas', 'oke', 'wren']) {
		const approver = await as(browser, who);
		await go(approver, way);
		const button = approver.getByRole('button', { name: /^Approve/ });
		if (await button.count()) {
			await expect(approver.getByText('goes out stamped')).toBeVisible();
			await button.click();
			await expect(button).toHaveCount(0);
		}
		await approver.context().close();
	}
	await ines.getByRole('link', { name: 'Issue…' }).click();
	await ines.waitForURL(/\/issue$/);
	await ready(ines);
	await expect(
		ines.getByText('1 of 1 document leaves changed; the originals stay, and the list names both.')
	).toBeVisible();
	await expect(ines.getByRole('link', { name: `${NUMBER} as it goes out: stamped` })).toBeVisible();
	await ines.getByLabel(`Type ${number} to issue it`).fill(number);
	await ines.getByRole('button', { name: `Issue ${number}` }).click();
	await expect(ines.getByText(/pass(es)? went out by mail/)).toBeVisible();
	await expect(row.getByRole('link', { name: `${NUMBER} as it went out: stamped` })).toBeVisible();

	const context = await browser.newContext({ baseURL: base() });
	const client = await context.newPage();
	const pass = (await ines
		.getByRole('link', { name: /\/pass\// })
		.first()
		.getAttribute('href'))!;
	await go(client, pass);
	const [download] = await Promise.all([
		client.waitForEvent('download'),
		client.getByRole('link', { name: 'Download', exact: true }).click()
	]);
	const file = await download.path();
	expect(execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })).toMatch(stamp);
	await context.close();
	const label = /\b[PC]\d\d\b/.exec(await row.innerText())![0];
	expect(await wordsAt(ines, `/api/v1/documents/${id}/versions/${label}/file?download`)).not.toMatch(stamp);
});
