import { pageView } from '../../page-data';
import { REMARK_FILTERS } from '$lib/core/remarks/remarks';
import { remarksWithin } from '$lib/server/remarks/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:remarks');
	const { searchParams } = event.url;
	const filter = REMARK_FILTERS.find((f) => f === searchParams.get('filter')) ?? 'open';
	const place = searchParams.get('place') ?? undefined;
	const { project } = event.params;
	return { filter, place, ...(await pageView(event, remarksWithin, { project, filter, place })) };
};
