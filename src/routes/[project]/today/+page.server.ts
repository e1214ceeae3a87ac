import { pageView } from '../../page-data';
import { everythingInHand } from '$lib/server/documents/views';
import { releases } from '$lib/server/releases/views';
import { remarksWithin } from '$lib/server/remarks/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:today');
	const { project } = event.params;
	const [given, held, known] = await Promise.all([
		pageView(event, remarksWithin, { project, filter: 'mine' }),
		pageView(event, everythingInHand, { project }),
		pageView(event, releases, { project })
	]);
	return {
		remarks: given.remarks,
		inHand: held.rows.filter((row) => row.lock?.mine),
		releases: known.releases.filter((release) => release.waitsForMe)
	};
};
