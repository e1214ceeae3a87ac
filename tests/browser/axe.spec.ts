import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './world';
import { act, as, documentId, go } from './people';

/** Light and dark; the dark set differs in its colours only. */
const SCHEMES = {
	light: (axe: AxeBuilder) => axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']),
	dark: (axe: AxeBuilder) => axe.withRules(['color-contrast'])
};

test('the main screens hold to WCAG 2.2 AA, light and dark', async ({ browser }) => {
	test.slow();
	const ines = await as(browser, 'ines');
	const { id, folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
	const { id: text } = await documentId(ines, 'VFT-MW-LS-00-SP-0005');
	const { id: schedule } = await documentId(ines, 'VFT-MW-LS-00-SH-0004');
	const { id: drawing } = await documentId(ines, 'VFT-MW-LS-00-DR-0701');
	const { id: seen } = await documentId(ines, 'VFT-ST-TB-FN-DR-0104');
	const { passes } = await act(ines, 'passes', { project: 'VFT' });
	const sent = passes.find((one) => one.release !== null && one.state === 'open')!;
	const { link } = await act(ines, 'passAddress', { project: 'VFT', pass: sent.id });
	const pass = new URL(link).pathname;
	const got = await act(ines, 'passView', { secret: pass.split('/').at(-1)! });
	for (const path of [
		pass,
		`${pass}/view/${got.items[0]!.documentId}`,
		'shelves',
		`place/${folder}?document=${id}`,
		`document/${id}`,
		`document/${id}/remarks`,
		`document/${id}/references`,
		`document/${text}`,
		`document/${schedule}`,
		`document/${drawing}`,
		'remarks',
		'today',
		'releases',
		'releases/33',
		'releases/34',
		'releases/34/issue',
		`releases/34/view/${seen}`,
		'releases/holders',
		'activity',
		'removed',
		'people',
		'outbox',
		'find?q=linkspan',
		`access/${folder}`,
		'sharing',
		'passes',
		'arrivals',
		'notices',
		'settings',
		'settings/sheets',
		'settings/mail',
		'in-hand',
		'new',
		'at-hand',
		'register',
		'register?group=department&stage=comment',
		'issued',
		'settings/register',
		'settings/releases',
		'shared',
		'hatches',
		'photograph',
		'help/in-hand'
	]) {
		await ines.emulateMedia({ colorScheme: 'light' });
		await go(ines, path.startsWith('/') ? path : `/vft/${path}`);
		for (const scheme of ['light', 'dark'] as const) {
			await ines.emulateMedia({ colorScheme: scheme });
			await expect(ines.locator('html')).toHaveAttribute('data-theme', scheme);
			// Nothing here stands in frames; looking for some takes longer than all the rules. So does telling where all
			// that is right stands.
			const axe = new AxeBuilder({ page: ines }).setLegacyMode().options({ resultTypes: ['violations'] });
			const { violations } = await SCHEMES[scheme](axe).analyze();
			expect(
				violations.map(
					(v) =>
						`${path}, ${scheme}: ${v.id}: ${v.nodes
							.map((n) => n.target.join(' '))
							.slice(0, 3)
							.join(' | ')}`
				)
			).toEqual([]);
		}
	}
});
