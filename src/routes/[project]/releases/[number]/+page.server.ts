import { pageView } from '../../../page-data';
import { releaseView } from '$lib/server/releases/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:release');
	return pageView(event, releaseView, event.params);
};
