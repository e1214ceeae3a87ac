import { error } from '@sveltejs/kit';
import { pageView } from '../../../../../page-data';
import { releaseContent, releaseView } from '$lib/server/releases/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { project, number, document } = event.params;
	const { release } = await pageView(event, releaseView, { project, number });
	const file = await pageView(event, releaseContent, { release: release.id, document });
	const { before } = file;
	if (!before) error(404, { message: 'There is no revision before this one.', code: 'not-found' });
	return { release: { id: release.id, number: release.number }, file, before, document };
};
