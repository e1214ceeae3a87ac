import { pageView } from '../../page-data';
import { issued } from '$lib/server/register/views-issued';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:issued');
	return pageView(event, issued, { project: event.params.project });
};
