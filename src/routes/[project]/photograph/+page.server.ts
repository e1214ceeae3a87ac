import { folders } from '$lib/server/places/views-tree';
import { pageView } from '../../page-data';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { folders: places } = await pageView(event, folders, { project: event.params.project });
	return { places, place: event.url.searchParams.get('place') };
};
