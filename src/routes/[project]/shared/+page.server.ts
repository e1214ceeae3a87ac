import { pageView } from '../../page-data';
import { sharing } from '$lib/server/access/views-sharing';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:sharing');
	return pageView(event, sharing, { project: event.params.project });
};
