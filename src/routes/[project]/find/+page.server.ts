import { pageView } from '../../page-data';
import { find } from '$lib/server/views/documents';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const q = event.url.searchParams.get('q')?.trim() ?? '';
	return {
		q,
		rows: q.length < 2 ? [] : (await pageView(event, find, { project: event.params.project, q })).rows
	};
};
