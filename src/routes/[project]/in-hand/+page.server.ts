import { pageView } from '../../page-data';
import { everythingInHand } from '$lib/server/documents/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:in-hand');
	return pageView(event, everythingInHand, { project: event.params.project });
};
