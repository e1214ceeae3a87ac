import { expect, test, type Page } from './world';
import { act, as, choose, documentId, go, offered } from './people';

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true });

test('a page on which editing together was begun follows the document, whoever changes it', async ({
	browser
}) => {
	const [oke, ines] = [await as(browser, 'oke'), await as(browser, 'ines')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-RP-0045');
	await go(oke, `/vft/document/${id}`);
	await choose(oke, 'Edit together…');
	await oke.getByRole('dialog').getByRole('button', { name: 'Edit together' }).click();
	await expect(oke.getByRole('dialog')).toBeHidden();
	const free = async () => {
		await expect(oke.getByText('Edited together since')).toBeVisible();
		await expect(button(oke, 'Hand in')).toBeVisible();
		await expect(button(oke, 'Lock')).toBeVisible();
		await offered(oke, 'End editing together');
		await expect(oke.locator('.ProseMirror')).toHaveAttribute('contenteditable', 'true');
	};
	await free();

	// Another takes it in hand, and gives it back.
	await act(ines, 'takeLock', { document: id, purpose: 'final wording' });
	await expect(oke.getByText('Ines Maddock').first()).toBeVisible();
	await expect(button(oke, 'Ask for the lock…')).toBeVisible();
	await offered(oke, 'End editing together', false);
	await expect(oke.locator('.ProseMirror')).toHaveAttribute('contenteditable', 'false');
	await act(ines, 'giveBackLock', { document: id });
	await free();

	// One's own lock, and giving it back.
	await button(oke, 'Lock').click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Lock', exact: true }).click();
	await expect(oke.getByRole('dialog')).toBeHidden();
	await expect(button(oke, 'Lock')).toBeHidden();
	await expect(oke.locator('.ProseMirror')).toHaveAttribute('contenteditable', 'true');
	await choose(oke, 'Give back unchanged');
	await free();

	// Another hands in, and ends it.
	await oke.locator('.ProseMirror').click();
	await oke.keyboard.type('Seen from the quay. ');
	await expect(oke.locator('.ProseMirror')).toContainText('Seen from the quay.');
	const text = () => ines.request.get(`/api/v1/documents/${id}/live/text`).then((answer) => answer.text());
	await expect.poll(text).toContain('Seen from the quay.');
	const { label } = await act(ines, 'handInLive', { document: id, note: 'seen' });
	await expect(oke.getByRole('navigation', { name: 'Revisions' }).getByText(label).first()).toBeVisible();
	await act(ines, 'endLive', { document: id });
	await expect(oke.getByText('Edited together since')).toBeHidden();
	await offered(oke, 'Edit together…');
	await offered(oke, 'End editing together', false);
	await expect(oke.locator('.ProseMirror')).toHaveCount(0);
	await button(oke, 'Lock').click();
	await oke.getByRole('dialog').getByRole('button', { name: 'Lock', exact: true }).click();
	await expect(button(oke, 'Hand in')).toBeVisible();
	await button(oke, 'Hand in').click();
	await expect(oke.getByLabel('The file you worked on')).toBeVisible();
});

for (const [kind, number] of [
	['schedule', 'VFT-MW-QW-00-SH-0042'],
	['drawing', 'VFT-MW-QW-00-DR-0402']
] as const)
	test(`a page with a ${kind} follows locks and the end of editing together, too`, async ({ browser }) => {
		const [oke, ines] = [await as(browser, 'oke'), await as(browser, 'ines')];
		const { id } = await documentId(oke, number);
		await go(oke, `/vft/document/${id}`);
		await choose(oke, 'Edit together…');
		await oke.getByRole('dialog').getByRole('button', { name: 'Edit together' }).click();
		const free = async () => {
			await expect(oke.getByText('Edited together since')).toBeVisible();
			await expect(button(oke, 'Lock')).toBeVisible();
			await offered(oke, 'End editing together');
		};
		await free();
		await act(ines, 'takeLock', { document: id, purpose: 'checking' });
		await expect(button(oke, 'Ask for the lock…')).toBeVisible();
		await offered(oke, 'End editing together', false);
		await act(ines, 'giveBackLock', { document: id });
		await free();
		await act(ines, 'endLive', { document: id });
		await expect(oke.getByText('Edited together since')).toBeHidden();
		await offered(oke, 'Edit together…');
	});

test('what others do takes nobody’s place away, and is not told as an opening', async ({ browser }) => {
	const [oke, ines] = [await as(browser, 'oke'), await as(browser, 'ines')];
	const { id } = await documentId(oke, 'VFT-MW-QW-00-SH-0042');
	const openings: string[] = [];
	oke.on(
		'request',
		(asked) => asked.url().endsWith(`/documents/${id}/opened`) && openings.push(asked.method())
	);
	await go(oke, `/vft/document/${id}`);

	await go(ines, '/vft/activity');
	const list = ines.locator('main ol').first();
	const entries = () => list.locator('> li').count();
	const first = await entries();
	await expect
		.poll(async () => {
			await list.evaluate((one) => (one.parentElement!.scrollTop = one.scrollHeight));
			return entries();
		})
		.toBeGreaterThan(2 * first);
	const before = await entries();

	await act(ines, 'addRemark', { document: id, anchor: { on: 'whole' }, text: 'Is pile 4 raked?' });
	await act(ines, 'takeLock', { document: id, purpose: 'the rake of the piles' });
	await expect(list.getByText('the rake of the piles')).toBeAttached();
	expect(await entries()).toBeGreaterThanOrEqual(before);
	await expect(oke.getByText('Ines Maddock').first()).toBeVisible();
	expect(openings).toEqual(['POST']);
});
