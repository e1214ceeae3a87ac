import { pageView } from '../../page-data';
import { everythingInHand } from '$lib/server/documents/views';
import { arrivals } from '$lib/server/passes/views';
import { releases } from '$lib/server/releases/views';
import { received } from '$lib/server/releases/views-received';
import { remarksWithin } from '$lib/server/remarks/views';
import { atHand, latelyOpen, newToYou } from '$lib/server/today/views';
import type { PageServerLoad } from './$types';

/** Lately open documents that stand beside what waits. */
const LATELY = 6;

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:today');
	const { project } = event.params;
	const [given, held, known, came, fresh, lately, kept, sent] = await Promise.all([
		pageView(event, remarksWithin, { project, filter: 'mine' }),
		pageView(event, everythingInHand, { project, mine: 'yes' }),
		pageView(event, releases, { project }),
		pageView(event, arrivals, { project }),
		pageView(event, newToYou, { project }),
		pageView(event, latelyOpen, { project, limit: LATELY }),
		pageView(event, atHand, { project }),
		pageView(event, received, { project })
	]);
	return {
		remarks: given.remarks,
		inHand: held.rows,
		releases: known.releases,
		arrivals: came.rows.filter((row) => row.state === 'waiting' || row.state === 'unsafe'),
		fresh,
		lately: lately.rows,
		kept: kept.rows,
		sent: sent.releases.filter((one) => one.waits)
	};
};
