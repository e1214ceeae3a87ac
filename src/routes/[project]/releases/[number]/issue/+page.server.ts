import { error } from '@sveltejs/kit';
import { pageView } from '../../../../page-data';
import { releaseView } from '$lib/server/releases/views';
import { settings } from '$lib/server/settings/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:release');
	const release = await pageView(event, releaseView, event.params);
	if (!release.controller)
		error(403, {
			message: 'Only a document controller of the project issues a release.',
			code: 'needs-level'
		});
	const { publishingPurposes } = await pageView(event, settings, { project: event.params.project });
	return { view: release, publishingPurposes };
};
