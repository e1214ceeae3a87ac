import { readFile } from 'node:fs/promises';
import { expect, test } from './world';
import { as, go, ready, setUpTwoStep, said } from './people';
import { timeCode } from '../time-code';

test('a new release is proposed the route of its purpose; who holds an old revision is seen and told', async ({
	browser
}) => {
	const ines = await as(browser, 'ines');
	await go(ines, '/vft/releases');
	await ines.getByRole('button', { name: 'New release' }).click();
	const dialog = ines.getByRole('dialog');
	await dialog.getByRole('combobox', { name: 'Purpose', exact: true }).click();
	await ines.getByRole('option', { name: 'For construction' }).click();
	await expect(dialog.getByLabel('Name of step 2')).toHaveValue('Lead approval');
	await expect(dialog.getByText('Kell Harrant')).toBeVisible();
	// What one changes of it is one's own, and another purpose does not write over it.
	await dialog.getByRole('button', { name: 'Leave Kell Harrant out of step 1' }).click();
	await dialog.getByRole('combobox', { name: 'Purpose', exact: true }).click();
	await ines.getByRole('option', { name: 'For approval' }).click();
	await expect(dialog.getByLabel('Name of step 1')).toHaveValue('Check');
	await dialog.getByRole('button', { name: 'Cancel' }).click();

	await ines.getByRole('link', { name: 'Who holds what' }).click();
	await ines.waitForURL(/\/holders$/);
	await ready(ines);
	await ines.getByRole('button', { name: 'Export' }).click();
	const [list] = await Promise.all([
		ines.waitForEvent('download'),
		ines.getByRole('menuitem', { name: 'CSV' }).click()
	]);
	expect(list.suggestedFilename()).toMatch(/^VFT who holds what .*\.csv$/);
	expect(await readFile(await list.path(), 'utf8')).toMatch(/VFT-.*holds an old one/);
	const filter = ines.getByRole('button', { name: /Somebody holds an old revision/ });
	await filter.click();
	await expect(filter).toHaveAttribute('aria-pressed', 'true');
	await ines
		.getByRole('button', { name: /holds an old one/ })
		.last()
		.click();
	const panel = ines.getByRole('region', { name: 'Chosen' });
	await expect(panel).toContainText('is current');
	await expect(panel).toContainText(/sent with release 00\d\d/);
	await panel.getByRole('button', { name: /^Tell / }).click();
	await said(ines, '1 holder told by mail.');
	await go(ines, '/vft/outbox');
	await expect(ines.getByText(/you hold 1 revision that is out of date/).first()).toBeVisible();
});

test('a release goes its route: sent back by who stands in, on a phone, asked again and approved by two of three', async ({
	browser
}) => {
	const [ines, aino, halla, oke] = [
		await as(browser, 'ines'),
		await as(browser, 'aino'),
		await as(browser, 'halla'),
		await as(browser, 'oke')
	];
	await go(ines, '/vft/releases/34');
	// Nothing changed since it was approved last, its reasons for what was to be looked at included.
	await expect(ines.getByText(/Ines Maddock: It follows with a later release/).first()).toBeVisible();
	await expect(ines.getByRole('heading', { name: 'Since the last time' })).toHaveCount(0);

	await test.step('Aino stands in for Tomas and sends it back from a phone', async () => {
		await aino.setViewportSize({ width: 390, height: 844 });
		await go(aino, '/vft/releases/34');
		await expect(aino.getByRole('button', { name: 'Approve step 2 for Tomas Verrin' })).toBeVisible();
		await expect(aino.getByText('Tomas Verrin is away until')).toBeAttached();
		// She looks at a sheet without leaving the release, and says at its place what is missing.
		await aino.getByRole('link', { name: 'Foundation plan' }).click();
		await aino.waitForURL(/releases\/34\/view/);
		await ready(aino);
		await aino.getByRole('button', { name: 'Choose its place' }).click();
		await aino
			.getByRole('button', { name: 'Choose the place of the remark' })
			.click({ position: { x: 150, y: 120 } });
		await aino.getByRole('textbox', { name: /at this place/ }).fill('The grade of the bearings is not said.');
		await aino.getByRole('button', { name: 'Remark', exact: true }).click();
		await expect(aino.getByText('The grade of the bearings is not said.')).toBeVisible();
		await aino.goBack();
		await ready(aino);
		await aino.getByRole('button', { name: 'Send back' }).click();
		await aino.getByRole('dialog').getByLabel('Reason').fill('The note on grade is missing.');
		await aino.getByRole('dialog').getByRole('button', { name: 'Send back' }).click();
		await expect(ines.getByText('Aino Weir sent it back:')).toBeVisible();
		await expect(aino.getByRole('heading', { name: 'Back with its builder' })).toBeVisible();
		await expect(aino.getByText('You are asked once it is ready.')).toBeVisible();
	});

	await test.step('What she remarked is settled from the release, which then is as it was', async () => {
		await expect(ines.getByText('Remarks settled: One remark on it is open.')).toBeVisible();
		await expect(ines.getByRole('button', { name: 'Ask for approval' })).toBeDisabled();
		await ines.getByRole('button', { name: 'Settle them…' }).click();
		await ines.waitForURL(/document\/.*\/remarks/);
		await ready(ines);
		await ines.getByRole('checkbox', { name: /Settle remark/ }).check();
		await ines.getByRole('button', { name: 'Settle 1 remark' }).click();
		await said(ines, '1 remark settled; whoever made them is told.');
		await ines.goBack();
		await ready(ines);
		await expect(ines.getByText('One remark on it is open.')).toHaveCount(0);
	});

	await test.step('Asked again, the check stands and the leads decide anew', async () => {
		await ines.getByRole('button', { name: 'Ask for approval' }).click();
		await expect(ines.getByText('in review, step 2 of 2')).toBeVisible();
		await expect(ines.getByText(/Approved .* K Harrant/i)).toBeVisible();
		await expect(ines.getByText('2 approvals to come')).toBeVisible();
		for (const [who, left] of [
			[halla, '1 approval to come'],
			[oke, null]
		] as const) {
			await go(who, '/vft/releases/34');
			await who.getByRole('button', { name: 'Approve step 2' }).click();
			if (left) await expect(ines.getByText(left)).toBeVisible();
		}
		await expect(ines.getByRole('link', { name: 'Issue…' })).toBeVisible();
		await expect(oke.getByRole('button', { name: 'Approve step 2' })).toHaveCount(0);
	});

	await test.step('Issuing asks for a code of two-step sign-in, where the project says so', async () => {
		await go(ines, '/vft/settings/releases');
		await ines.getByLabel('Issuing asks for a code of two-step sign-in').check();
		await expect(
			ines.getByText(/issues nothing until two-step sign-in is set up: Ines Maddock/)
		).toBeVisible();
		await ines.getByRole('button', { name: 'Change what issuing asks for' }).click();
		await said(ines, /^Changed\. It stands/);
		await go(ines, '/vft/releases/34/issue');
		await expect(ines.getByText(/Set it up on your own page first/)).toBeVisible();
		const { key } = await setUpTwoStep(ines);
		await go(ines, '/vft/releases/34/issue');
		const code = ines.getByLabel('Code of your authenticator, to issue it');
		await code.fill('000000');
		await ines.getByRole('button', { name: 'Issue 0034' }).click();
		await expect(ines.getByText(/The code is wrong/)).toBeVisible();
		// The one that turned it on is used up.
		await code.fill(timeCode(key, 1));
		await ines.getByRole('button', { name: 'Issue 0034' }).click();
		await expect(ines.getByRole('heading', { name: 'Who gets what' })).toHaveCount(0);
		await expect(ines.getByText('issued', { exact: true }).first()).toBeVisible();
	});
});
