import { pageView } from '../page-data';
import { myProjects } from '$lib/server/people/views';
import { notices } from '$lib/server/notices/views';
import { projectFrame } from '$lib/server/places/views';
import { waiting } from '$lib/server/today/views';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
	/** Before anything of the page is read: what happens from now on may be missing from it. */
	const asked = Date.now();
	const [frame, { projects }, { unread }, counts] = await Promise.all([
		pageView(event, projectFrame, { project: event.params.project }),
		pageView(event, myProjects, {}),
		pageView(event, notices, { project: event.params.project, limit: 1 }),
		pageView(event, waiting, { project: event.params.project })
	]);
	const trying = event.locals.actor?.trying?.projectId === frame.project.id;
	return {
		asked,
		unread,
		waiting: counts,
		frame,
		projects,
		trying,
		demo: event.locals.app.services.config.demo
	};
};
