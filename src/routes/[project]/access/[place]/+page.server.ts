import { pageView } from '../../../page-data';
import { access } from '$lib/server/access/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:access');
	return pageView(event, access, { place: event.params.place });
};
