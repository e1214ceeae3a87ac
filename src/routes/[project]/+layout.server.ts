import { pageView } from '../page-data';
import { myProjects } from '$lib/server/views/project';
import { projectFrame } from '$lib/server/views/places';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
	const [frame, { projects }] = await Promise.all([
		pageView(event, projectFrame, { project: event.params.project }),
		pageView(event, myProjects, {})
	]);
	const trying = event.locals.actor?.trying?.projectId === frame.project.id;
	return { frame, projects, trying, demo: event.locals.app.services.config.demo };
};
