import { error } from '@sveltejs/kit';
import { pageView } from '../../../../page-data';
import { passView } from '$lib/server/releases/views-pass';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret, document } = event.params;
	const view = await pageView(event, passView, { secret });
	const item = view.items.find((one) => one.documentId === document);
	if (!item?.before) error(404, { message: 'You had no other revision of this before.', code: 'not-found' });
	return { secret, release: view.release.number, item, before: item.before };
};
