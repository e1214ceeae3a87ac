import type { BrowserContext } from '@playwright/test';
import { as, go, pick, ready, said } from './people';
import { worn } from './seats';
import { expect, test } from './world';

/**
 * Somebody who has never seen Cupboard sets a project up, going only by what stands on the screen. Each stretch counts
 * its clicks, which the report tells.
 */
test('a project from nothing to a release, by what is on screen', async ({ browser }) => {
	const ines = await as(browser, 'ines');
	worn(ines);
	const clicks = await counting(ines.context());
	await go(ines, '/vft/shelves');
	const counted: string[] = [];
	const stretch = async (name: string, act: () => Promise<void>) => {
		const before = clicks.number;
		await test.step(name, act);
		counted.push(`${name}: ${clicks.number - before}`);
	};
	const dialog = ines.getByRole('dialog');
	const band = ines.getByRole('navigation', { name: 'Project' });

	await stretch('a project from nothing', async () => {
		await ines.getByRole('button', { name: 'Vennholm Ferry Terminal' }).click();
		await ines.getByRole('menuitem', { name: 'All projects' }).click();
		await ines.getByLabel('Code, as numbers begin with it').fill('BRW');
		await ines.getByLabel('Name', { exact: true }).fill('Breakwater repair');
		await ines.getByLabel('Client').fill('Vennholm Harbour Trust');
		await ines.getByRole('button', { name: 'Make the project' }).click();
		await expect(ines.getByRole('heading', { name: 'The cupboard is empty' })).toBeVisible();
	});

	await stretch('numbers and revisions', async () => {
		await ines.getByRole('button', { name: 'Choose them' }).click();
		// What each choice makes stands beside it.
		await expect(dialog.getByText('BRW-AA-DR-0001')).toBeVisible();
		await dialog.getByRole('radio', { name: /^Project, department, type, serial/ }).check();
		await expect(dialog.getByRole('radio', { name: /^Preliminary, then contractual/ })).toBeChecked();
		await dialog.getByRole('radio', { name: /^Preliminary, contractual, as built/ }).check();
		await dialog.getByRole('button', { name: 'Use these' }).click();
		await expect(ines.getByText(/Numbers look like BRW-AA-DR-0001, revisions like P01\.1/)).toBeVisible();
	});

	await stretch('ten people of three departments', async () => {
		await ines.getByRole('link', { name: 'Make departments' }).click();
		const making = ines.locator('form').filter({ hasText: 'Make a department' });
		for (const [code, name] of [
			['MW', 'Marine works'],
			['ST', 'Structures'],
			['PL', 'Planning']
		] as const) {
			await making.getByLabel('Code').fill(code);
			await making.getByLabel('Name').fill(name);
			await making.getByRole('button', { name: 'Make department' }).click();
			await expect(ines.getByRole('heading', { name })).toBeVisible();
		}
		// Two whom the other project knows, eight from a list that came by mail.
		const picker = ines.getByLabel('Mail address, or a name from the address book');
		for (const name of ['Oke Lindvar', 'Halla Brandt']) {
			await picker.fill(name.slice(0, 5));
			await ines.getByRole('option', { name: new RegExp(name) }).click();
		}
		const list = ines.getByLabel('Whom to add');
		const more = [
			'Ada Ferris <ada@vennholm.example>, MW, lead',
			'Bo Lunde, bo@vennholm.example, Marine works',
			'Cai Moor\tcai@vennholm.example\tMW',
			'Dag Orre; dag@vennholm.example; ST; lead',
			'Eli Parr, eli@vennholm.example, ST',
			'Fen Quist, fen@vennholm.example, Structures',
			'Gro Rand, gro@vennholm.example, PL, lead',
			'Hal Sund, hal@vennholm.example'
		];
		await list.fill(
			[...(await list.inputValue()).split('\n').map((line) => `${line}, MW`), ...more].join('\n')
		);
		await expect(ines.getByRole('list', { name: 'As read' })).toContainText('no department');
		await list.fill(`${await list.inputValue()}, Planning`);
		await ines.getByRole('button', { name: 'Add 10 people' }).click();
		await said(ines, '10 people added.');
		await expect(ines.getByText('11 people in 3 departments')).toBeVisible();
		await expect(ines.getByText('not come in yet')).toHaveCount(8);
	});

	await stretch('a shelf with a tree of folders', async () => {
		await band.getByRole('link', { name: 'Shelves' }).click();
		await expect(ines.getByText('10 people in departments.')).toBeVisible();
		await ines.getByRole('button', { name: 'New shelf' }).last().click();
		await pick(dialog.getByRole('combobox').first(), /^MW Marine works/);
		await dialog.getByRole('button', { name: 'Make shelf' }).click();
		await ines.getByRole('link', { name: 'Open the shelf' }).click();
		await ready(ines);
		await ines.getByRole('button', { name: 'New', exact: true }).click();
		await ines.getByRole('menuitem', { name: /^New folders/ }).click();
		await dialog
			.getByLabel(/^Name, or several/)
			.fill('Drawings\n  General\n  Details\n    Armour\nCalculations / Waves');
		await dialog.getByRole('button', { name: 'Make 6 folders' }).click();
		await said(ines, '6 folders made.');
		await ines.getByRole('link', { name: 'Drawings' }).first().click();
		await ready(ines);
		await expect(ines.getByRole('heading', { level: 1 })).toContainText('Drawings');
	});

	await stretch('a folder shared', async () => {
		await ines.getByRole('link', { name: 'Access', exact: true }).click();
		await ready(ines);
		await ines.getByLabel('Person, department, group or mail address').fill('struct');
		await ines.getByRole('option', { name: /Structures/ }).click();
		await expect(ines.getByRole('list', { name: 'As read' })).toContainText('3 people');
		await ines.getByRole('button', { name: 'Let in and tell them' }).click();
		await expect(ines.getByLabel('Level of Structures')).toContainText('View');
	});

	await stretch('two documents added', async () => {
		await ines.goBack();
		await ready(ines);
		await ines.getByRole('button', { name: 'Add documents' }).click();
		const file = (name: string, text: string) => ({
			name,
			mimeType: 'text/plain',
			buffer: Buffer.from(text)
		});
		await dialog
			.getByLabel('Choose files')
			.setInputFiles([file('Armour layout.txt', 'armour'), file('Toe detail.txt', 'toe')]);
		await dialog.getByRole('button', { name: 'Add 2 documents' }).click();
		await expect(dialog).toBeHidden();
		await expect(ines.getByRole('row', { name: /Armour layout/ })).toBeVisible();
	});

	await stretch('a link sent', async () => {
		await ines.getByRole('button', { name: /^Folder/ }).click();
		await ines.getByRole('menuitem', { name: /Make a pass.*a link for people without an account/ }).click();
		await dialog.getByLabel('For whom, as you call them').fill('Maren Aldgate');
		await dialog.getByLabel('Their mail addresses').fill('maren@harbour-trust.example');
		await dialog.getByRole('button', { name: 'Make pass' }).click();
		await expect(dialog.getByLabel('Link', { exact: true })).toHaveValue(/\/pass\//);
		await dialog.getByRole('button', { name: 'Done' }).click();
	});

	await stretch('a document locked and handed in', async () => {
		await ines.getByRole('row', { name: /Toe detail/ }).click();
		const block = ines.getByRole('region', { name: /^Title block of/ });
		await block.getByRole('button', { name: 'Lock', exact: true }).click();
		await dialog.getByLabel('What for').fill('toe moved');
		await dialog.getByRole('button', { name: 'Lock', exact: true }).click();
		await expect(block.getByText('have this in hand')).toBeVisible();
		await block.getByRole('button', { name: 'Hand in' }).click();
		await dialog
			.getByLabel('The file you worked on')
			.setInputFiles({ name: 'Toe detail.txt', mimeType: 'text/plain', buffer: Buffer.from('toe, moved') });
		await dialog.getByLabel('What changed').fill('Toe moved 300 seaward');
		await dialog.getByRole('button', { name: 'Hand in', exact: true }).click();
		await expect(block.getByText('Nobody has this in hand')).toBeVisible();
		await expect(block.getByText('Toe moved 300 seaward')).toBeVisible();
	});

	await stretch('two documents in a release', async () => {
		for (const title of ['Armour layout', 'Toe detail'])
			await ines
				.getByRole('row', { name: new RegExp(title) })
				.getByRole('checkbox')
				.check();
		await ines.getByRole('button', { name: '2 ticked' }).click();
		await ines.getByRole('menuitem', { name: /Put in release/ }).click();
		await dialog.getByLabel('Title').fill('Armour for comment');
		await pick(dialog.getByRole('combobox', { name: 'Purpose', exact: true }), 'For comment');
		// Who gets it need not be known before: an address, and who that is.
		await dialog.getByRole('combobox', { name: 'To', exact: true }).fill('maren@harbour-trust.example');
		await ines.getByRole('option', { name: /maren@harbour-trust\.example/ }).click();
		await dialog.getByLabel('Name', { exact: true }).fill('Maren Aldgate');
		await dialog.getByLabel('Company').fill('Vennholm Harbour Trust');
		await dialog.getByRole('combobox', { name: 'Add to step 1' }).fill('oke');
		await ines.getByRole('option', { name: /^Oke Lindvar/ }).click();
		await dialog.getByRole('button', { name: 'Build release' }).click();
		await expect(ines.getByRole('heading', { level: 1 })).toContainText('Release 0001');
		await expect(ines.getByText('Armour for comment').first()).toBeVisible();
		await expect(ines.getByRole('row', { name: /BRW-MW-/ })).toHaveCount(2);
	});

	test.info().annotations.push({ type: 'clicks', description: counted.join('; ') });
	console.log(`clicks: ${counted.join('; ')}`);
});

/** Counts what is clicked in a browser, with the mouse or a finger. */
async function counting(context: BrowserContext) {
	const clicks = { number: 0 };
	await context.exposeFunction('countClick', () => void clicks.number++);
	await context.addInitScript(() =>
		addEventListener(
			'pointerdown',
			() => void (window as unknown as { countClick: () => void }).countClick(),
			true
		)
	);
	return clicks;
}
