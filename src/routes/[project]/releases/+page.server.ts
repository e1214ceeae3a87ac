import { pageView } from '../../page-data';
import { releases } from '$lib/server/releases/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:releases');
	return pageView(event, releases, { project: event.params.project });
};
