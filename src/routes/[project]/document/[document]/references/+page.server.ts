import { pageView } from '../../../../page-data';
import { documentView } from '$lib/server/documents/views';
import { neighbourhood } from '$lib/server/references/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:document');
	const { document } = event.params;
	const [{ row }, around] = await Promise.all([
		pageView(event, documentView, { document }),
		pageView(event, neighbourhood, { document })
	]);
	return { row, around };
};
