import { error } from '@sveltejs/kit';
import { pageView } from '../../../../page-data';
import { passView } from '$lib/server/views/releases';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret, document } = event.params;
	const view = await pageView(event, passView, { secret });
	const item = view.items.find((i) => i.documentId === document);
	if (!item) error(404, { message: 'The document is not in this release.', code: 'not-found' });
	return { item, secret, number: view.release.number };
};
