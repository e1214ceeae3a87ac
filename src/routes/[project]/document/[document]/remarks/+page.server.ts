import { pageView } from '../../../../page-data';
import { documentView } from '$lib/server/documents/views';
import { remarks } from '$lib/server/remarks/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:remarks');
	const { document } = event.params;
	const { row, way } = await pageView(event, documentView, { document });
	return { row, way, ...(await pageView(event, remarks, { document })) };
};
