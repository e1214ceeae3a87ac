import { pageAct, pageView } from '../../page-data';
import { openPass } from '$lib/server/acts/passes';
import { passView } from '$lib/server/views/releases';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret } = event.params;
	event.setHeaders({ 'cache-control': 'private, no-store' });
	const view = await pageView(event, passView, { secret });
	await pageAct(event, openPass, { secret });
	return { view, secret };
};
