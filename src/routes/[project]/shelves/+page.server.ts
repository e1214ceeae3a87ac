import { pageView } from '../../page-data';
import { shelves } from '$lib/server/places/views-tree';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:shelves');
	return pageView(event, shelves, { project: event.params.project });
};
