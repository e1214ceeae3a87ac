import { pageView } from '../../page-data';
import { people } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:people');
	return pageView(event, people, { project: event.params.project });
};
