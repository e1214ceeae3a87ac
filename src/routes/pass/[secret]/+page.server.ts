import { pageView } from '../../page-data';
import { placeByPass } from '$lib/server/passes/views';
import { passView } from '$lib/server/releases/views';
import { openForPage } from './open';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret } = event.params;
	event.setHeaders({ 'cache-control': 'private, no-store' });
	const gate = await openForPage(event, secret);
	if (gate.asks !== 'nothing') return { secret, gate, release: null, place: null };
	if (gate.leadsTo === 'release')
		return { secret, gate, release: await pageView(event, passView, { secret }), place: null };
	const folder = event.url.searchParams.get('folder') ?? undefined;
	return { secret, gate, release: null, place: await pageView(event, placeByPass, { secret, folder }) };
};
