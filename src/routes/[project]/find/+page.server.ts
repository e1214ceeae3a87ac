import { pageView } from '../../page-data';
import { find } from '$lib/server/find/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const q = event.url.searchParams.get('q')?.trim().slice(0, 100) ?? '';
	const found = q.length < 2 ? null : await pageView(event, find, { project: event.params.project, q });
	return { q, found };
};
