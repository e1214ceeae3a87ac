import { pageView } from '../../page-data';
import { notices } from '$lib/server/notices/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:notices');
	return pageView(event, notices, { project: event.params.project });
};
