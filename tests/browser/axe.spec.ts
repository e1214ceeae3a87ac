import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { as, documentId, ready } from './people';

for (const scheme of ['light', 'dark'] as const) {
	test(`the main screens hold to WCAG 2.2 AA, ${scheme}`, async ({ browser }) => {
		const ines = await as(browser, 'ines');
		await ines.emulateMedia({ colorScheme: scheme });
		const { id, folder } = await documentId(ines, 'VFT-MW-LS-00-DR-0101');
		const { id: text } = await documentId(ines, 'VFT-MW-LS-00-SP-0005');
		const { id: schedule } = await documentId(ines, 'VFT-MW-LS-00-SH-0004');
		const { id: drawing } = await documentId(ines, 'VFT-MW-LS-00-DR-0701');
		for (const path of [
			'shelves',
			`place/${folder}?document=${id}`,
			`document/${id}`,
			`document/${id}/remarks`,
			`document/${text}`,
			`document/${schedule}`,
			`document/${drawing}`,
			'remarks',
			'today',
			'releases',
			'releases/33',
			'releases/34',
			'activity',
			'removed',
			'people',
			'outbox',
			'find?q=linkspan',
			`access/${folder}`,
			'given',
			'passes',
			'arrivals',
			'notices',
			'settings',
			'in-hand',
			'photograph'
		]) {
			await ines.goto(`/vft/${path}`);
			await ready(ines);
			const axe = new AxeBuilder({ page: ines });
			// The dark set differs in its colours only.
			if (scheme === 'dark') axe.withRules(['color-contrast']);
			else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']);
			const { violations } = await axe.analyze();
			expect(
				violations.map(
					(v) =>
						`${path}: ${v.id}: ${v.nodes
							.map((n) => n.target.join(' '))
							.slice(0, 3)
							.join(' | ')}`
				)
			).toEqual([]);
		}
		await ines.context().close();
	});
}
