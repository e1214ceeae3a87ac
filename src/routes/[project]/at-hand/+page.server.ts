import { pageView } from '../../page-data';
import { atHand, latelyOpen } from '$lib/server/today/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:at-hand');
	const { project } = event.params;
	const [kept, lately] = await Promise.all([
		pageView(event, atHand, { project }),
		pageView(event, latelyOpen, { project })
	]);
	return { kept: kept.rows, lately: lately.rows };
};
