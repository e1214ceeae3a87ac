import { pageView } from '../../page-data';
import { issued } from '$lib/server/register/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:register');
	return pageView(event, issued, { project: event.params.project });
};
