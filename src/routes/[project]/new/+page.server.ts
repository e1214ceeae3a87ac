import { pageView } from '../../page-data';
import { newToYou } from '$lib/server/today/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:new');
	return pageView(event, newToYou, { project: event.params.project });
};
