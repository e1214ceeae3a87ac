import { pageView } from '../../page-data';
import { arrivals } from '$lib/server/passes/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:arrivals');
	return pageView(event, arrivals, { project: event.params.project });
};
