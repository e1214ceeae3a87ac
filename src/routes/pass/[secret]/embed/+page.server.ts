import { error } from '@sveltejs/kit';
import { pageView } from '../../../page-data';
import { placeByPass } from '$lib/server/passes/views';
import { openForPage } from '../open';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { secret } = event.params;
	const gate = await openForPage(event, secret);
	if (!gate.embeddable || gate.asks !== 'nothing')
		error(404, { message: 'This pass is not made for web pages.', code: 'not-found' });
	const place = await pageView(event, placeByPass, { secret });
	return { secret, item: place.documents[0]!, made: !place.mayDownload || place.stamped };
};
