import { redirect } from '@sveltejs/kit';
import { waitsForFirst } from '$lib/server/people/first';
import { readView } from '$lib/server/platform/runner/run';
import { myProjects } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
	const { services } = locals.app;
	if (!locals.actor) redirect(303, (await waitsForFirst(services.database)) ? '/first' : '/sign-in');
	const { projects } = await readView(services, myProjects, locals.actor, {});
	redirect(303, projects.length === 1 ? `/${projects[0]!.code.toLowerCase()}/shelves` : '/projects');
};
