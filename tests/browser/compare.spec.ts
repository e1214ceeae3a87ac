import { expect, test } from './world';
import { act, as, choose, documentId, go, ready, sendBytes, said } from './people';

test('two versions of a drawing: every known edit is found, by place and by item, and stepped through', async ({
	browser
}) => {
	const oke = await as(browser, 'oke');
	const { id } = await documentId(oke, 'VFT-MW-LS-00-DR-0101');
	await go(oke, `/vft/document/${id}/compare?from=P03&to=P04.2`);
	await expect(oke.getByRole('tab', { name: /^Places \d+/ })).toBeVisible();
	await expect(oke.getByRole('tab', { name: 'Items 7' })).toBeVisible();
	await oke.getByRole('tab', { name: 'Items 7' }).click();
	const list = oke.getByRole('complementary');
	// What the world maker did between the two: the pit wall moved by 150, and what belongs to it.
	await expect(list.getByText('moved polyline')).toHaveCount(3);
	await expect(list.getByText('dimension text:')).toContainText('10 850 10 550');
	await expect(list.getByText('attribute REVISION:')).toContainText('P03.2 P04.2');
	await oke.keyboard.press(']');
	await expect(oke.getByText('1 of 7')).toBeVisible();
	await oke.keyboard.press('[');
	await expect(oke.getByText('7 of 7')).toBeVisible();
	// The same sheet with itself by another version of equal content says so.
	await oke.goto(`/vft/document/${id}/compare?from=P03.2&to=P03`);
	await expect(oke.getByText(/very same bytes|Nothing differs|No item/).first()).toBeVisible();
});

test('a lock is asked for, and broken; what its holder brings later is kept and merged', async ({
	browser
}) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0303');
	const page = `/vft/document/${id}`;
	await go(rhosyn, page);
	await rhosyn.getByRole('button', { name: 'Lock', exact: true }).click();
	await rhosyn.getByRole('dialog').getByRole('button', { name: 'Lock', exact: true }).click();
	await expect(rhosyn.getByRole('button', { name: 'Hand in', exact: true })).toBeVisible();

	await go(oke, page);
	await oke.getByRole('button', { name: 'Ask for the lock…' }).click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();
	await expect(oke.getByRole('button', { name: 'Asked; stop waiting' })).toBeVisible();
	await choose(oke, 'Break the lock…');
	await oke.getByRole('dialog').getByRole('textbox').fill('needed today');
	await oke.getByRole('dialog').getByRole('button', { name: 'Break the lock' }).click();
	await oke.getByRole('button', { name: 'Lock', exact: true }).click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Lock', exact: true }).click();
	await expect(oke.getByRole('button', { name: 'Hand in', exact: true })).toBeVisible();

	// Rhosyn's page heard of it by itself; her work is not lost.
	await expect(rhosyn.getByText('Oke Lindvar broke your lock')).toBeVisible();
	await rhosyn.reload();
	await ready(rhosyn);
	await rhosyn.getByRole('button', { name: 'Bring what you have…' }).click();
	const dialog = rhosyn.getByRole('dialog');
	await dialog
		.getByLabel('The file you worked on')
		.setInputFiles({ name: 'rhosyn.txt', mimeType: 'text/plain', buffer: Buffer.from('what Rhosyn drew') });
	await dialog.getByLabel('What changed').fill('tie rods drawn');
	await dialog.getByRole('button', { name: 'Hand in beside' }).click();
	await expect(dialog.getByText(/of another kind/)).toBeVisible();
	await dialog.getByRole('button', { name: 'Hand in all the same' }).click();
	await said(rhosyn, 'Kept as side version 1');

	const sides = oke.getByRole('list', { name: 'Side versions' });
	await expect(sides).toContainText('tie rods drawn');
	await sides.getByRole('button', { name: 'Discard…' }).click();
	await oke.getByRole('dialog').getByRole('textbox').fill('drawn again on my sheet');
	await oke.getByRole('dialog').getByRole('button', { name: 'Discard' }).click();
	await expect(oke.getByRole('dialog')).toHaveCount(0);
	await choose(oke, 'Give back unchanged');
	await expect(oke.getByRole('button', { name: 'Lock', exact: true })).toBeVisible();
});

test('an old file under a new lock buries nothing: what came since is told, and where it goes is chosen', async ({
	browser
}) => {
	const [oke, rhosyn] = [await as(browser, 'oke'), await as(browser, 'rhosyn')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-DR-0306');
	const lock = async () => {
		await rhosyn.getByRole('button', { name: 'Lock', exact: true }).click();
		await rhosyn.getByRole('dialog').getByRole('button', { name: 'Lock', exact: true }).click();
		await expect(rhosyn.getByRole('button', { name: 'Hand in', exact: true })).toBeVisible();
	};
	await go(rhosyn, `/vft/document/${id}`);
	await lock();
	const coming = rhosyn.waitForEvent('download');
	await rhosyn.getByRole('link', { name: 'Download', exact: true }).click();
	await (await coming).path();
	await act(oke, 'breakLock', { document: id, reason: 'the berth opens' });
	await act(oke, 'takeLock', { document: id, purpose: 'berth' });
	const { versions } = (await (await oke.request.get(`/api/v1/documents/${id}`)).json()) as {
		versions: { label: string }[];
	};
	const had = versions[0]!.label;
	const made = await act(oke, 'handIn', {
		document: id,
		upload: await sendBytes(oke, 'wall.dxf', 'what Oke drew'),
		note: 'berth',
		base: had
	});
	const newer = made.kept === 'on-the-line' ? made.label : '';

	await expect(rhosyn.getByText('Oke Lindvar broke your lock')).toBeVisible();
	await lock();
	await expect(rhosyn.getByText('Oke Lindvar broke your lock')).toBeVisible();
	const dialog = rhosyn.getByRole('dialog');
	const handIn = async (content: string, choice: string | null) => {
		await rhosyn.getByRole('button', { name: 'Hand in', exact: true }).click();
		await dialog
			.getByLabel('The file you worked on')
			.setInputFiles({ name: 'wall.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(content) });
		await dialog.getByLabel('What changed').fill('my week');
		if (choice) await dialog.getByLabel(choice).check();
	};
	await handIn('what Rhosyn drew', null);
	await expect(dialog).toContainText(
		`Since ${had}, the last version that you are known to have had, Oke Lindvar stored ${newer}.`
	);
	await dialog.getByRole('button', { name: 'Hand in', exact: true }).click();
	await expect(dialog.getByLabel(/^My file is made from/)).toBeFocused();
	await dialog.getByLabel(/^Keep it beside/).check();
	await dialog.getByRole('button', { name: 'Hand in beside' }).click();
	await said(rhosyn, /Kept as side version 1/);
	await expect(rhosyn.getByText('Oke Lindvar broke your lock')).toBeHidden();
	await expect(rhosyn.getByRole('list', { name: 'Side versions' })).toContainText(`made from ${had}`);
	await expect(rhosyn.getByRole('button', { name: 'Hand in', exact: true })).toBeVisible();
});
