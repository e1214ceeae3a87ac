import { pageView } from '../page-data';
import { myProjects, myTokens } from '$lib/server/views/project';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const [{ tokens }, { projects }] = await Promise.all([
		pageView(event, myTokens, {}),
		pageView(event, myProjects, {})
	]);
	const { name, email } = event.locals.actor!.person;
	return { tokens, projects, name, email };
};
