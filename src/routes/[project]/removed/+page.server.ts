import { pageView } from '../../page-data';
import { removed } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:removed');
	return pageView(event, removed, { project: event.params.project });
};
