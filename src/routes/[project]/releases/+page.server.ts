import { pageView } from '../../page-data';
import { RELEASE_STATES, RELEASES_LEFT, type ReleasesShown } from '$lib/core/releases';
import { PURPOSES } from '$lib/core/revisions/revisions';
import { releases } from '$lib/server/releases/views';
import { received } from '$lib/server/releases/views-received';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:releases');
	const { project } = event.params;
	const [known, sent] = await Promise.all([
		pageView(event, releases, { project }),
		pageView(event, received, { project })
	]);
	const { searchParams } = event.url;
	const one = <T extends string>(name: string, known: readonly T[]): T | '' =>
		known.find((value) => value === searchParams.get(name)) ?? '';
	const shown: ReleasesShown = {
		text: searchParams.get('text')?.slice(0, 200) ?? '',
		state: one('state', RELEASE_STATES),
		purpose: one('purpose', PURPOSES),
		left: one('left', RELEASES_LEFT)
	};
	return { releases: known.releases, sent: sent.releases, shown };
};
