import { pageView } from '../../page-data';
import { placeByPass } from '$lib/server/passes/views';
import { passView } from '$lib/server/releases/views-pass';
import { openForPage } from './open';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	/** Before anything of the page is read: what happens from now on may be missing from it. */
	const readAt = Date.now();
	const { secret } = event.params;
	event.setHeaders({ 'cache-control': 'private, no-store' });
	const gate = await openForPage(event, secret);
	if (gate.asks !== 'nothing') return { secret, readAt, gate, release: null, place: null };
	if (gate.leadsTo === 'release')
		return { secret, readAt, gate, release: await pageView(event, passView, { secret }), place: null };
	const folder = event.url.searchParams.get('folder') ?? undefined;
	return {
		secret,
		readAt,
		gate,
		release: null,
		place: await pageView(event, placeByPass, { secret, folder })
	};
};
