import { pageView } from '../../page-data';
import { standIns } from '$lib/server/releases/views-stand-ins';
import { people } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:people');
	const project = event.params.project;
	const [page, { rows }] = await Promise.all([
		pageView(event, people, { project }),
		pageView(event, standIns, { project })
	]);
	return { ...page, standIns: rows };
};
