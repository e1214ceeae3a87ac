import { pageView } from '../../../page-data';
import { documentsIn } from '$lib/server/places/views';
import { folder } from '$lib/server/places/views-tree';
import type { PageServerLoad } from './$types';

/** Rows that come with the page; the list asks for the rest when it is on screen. */
const FIRST_ROWS = 200;

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:folder');
	const { place } = event.params;
	const [view, { rows }] = await Promise.all([
		pageView(event, folder, { place }),
		pageView(event, documentsIn, { place, limit: FIRST_ROWS })
	]);
	return { ...view, rows };
};
