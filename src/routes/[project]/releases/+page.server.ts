import { pageView } from '../../page-data';
import { releases } from '$lib/server/releases/views';
import { received } from '$lib/server/releases/views-received';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:releases');
	const { project } = event.params;
	const [known, sent] = await Promise.all([
		pageView(event, releases, { project }),
		pageView(event, received, { project })
	]);
	return { releases: known.releases, sent: sent.releases };
};
