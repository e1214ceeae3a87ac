import { redirect } from '@sveltejs/kit';
import { pageView } from '../../page-data';
import { desk } from '$lib/server/places/views-desk';
import type { PageServerLoad } from './$types';

/** A desk is a place as any other, so it is shown as one. */
export const load: PageServerLoad = async (event) => {
	const { project } = event.params;
	const { id, may } = await pageView(event, desk, { project });
	if (id) redirect(307, `/${project}/place/${id}`);
	return { may };
};
