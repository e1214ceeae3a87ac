import { pageView } from '../../page-data';
import { outbox } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:outbox');
	return pageView(event, outbox, { project: event.params.project });
};
