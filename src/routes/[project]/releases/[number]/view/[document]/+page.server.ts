import { pageView } from '../../../../../page-data';
import { releaseContent, releaseView } from '$lib/server/releases/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { project, number, document } = event.params;
	const { release, can } = await pageView(event, releaseView, { project, number });
	const file = await pageView(event, releaseContent, { release: release.id, document });
	return {
		release: { id: release.id, number: release.number, title: release.title },
		file,
		document,
		barred: can.remarkInRelease.why
	};
};
