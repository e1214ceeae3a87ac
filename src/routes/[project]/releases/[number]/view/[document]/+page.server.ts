import { pageView } from '../../../../../page-data';
import { releaseContent, releaseView } from '$lib/server/releases/views';
import { releaseMarks } from '$lib/server/releases/views-answers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { project, number, document } = event.params;
	const { release, can } = await pageView(event, releaseView, { project, number });
	const file = await pageView(event, releaseContent, { release: release.id, document });
	const { answers } = await pageView(event, releaseMarks, { release: release.id, document });
	return {
		release: { id: release.id, number: release.number, title: release.title },
		file,
		answers,
		document,
		barred: can.remarkInRelease.why
	};
};
