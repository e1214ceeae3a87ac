import { pageView } from '../../page-data';
import { passes } from '$lib/server/passes/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:passes');
	const place = event.url.searchParams.get('place') ?? undefined;
	return {
		...(await pageView(event, passes, { project: event.params.project, place })),
		only: place ?? null
	};
};
