import { pageView } from '../../page-data';
import { hatchView } from '$lib/server/passes/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret } = event.params;
	event.setHeaders({ 'cache-control': 'private, no-store' });
	return { hatch: await pageView(event, hatchView, { secret }), secret };
};
