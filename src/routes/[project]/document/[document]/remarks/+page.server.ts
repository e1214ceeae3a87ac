import { pageView } from '../../../../page-data';
import { documentView } from '$lib/server/views/documents';
import { remarks } from '$lib/server/views/remarks';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:remarks');
	const { document } = event.params;
	const { row, way } = await pageView(event, documentView, { document });
	return { row, way, ...(await pageView(event, remarks, { document })) };
};
