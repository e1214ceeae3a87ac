import { pageView } from '../../page-data';
import { given } from '$lib/server/access/views-given';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:given');
	return pageView(event, given, { project: event.params.project });
};
