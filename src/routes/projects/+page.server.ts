import { pageView } from '../page-data';
import { myProjects } from '$lib/server/people/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => pageView(event, myProjects, {});
