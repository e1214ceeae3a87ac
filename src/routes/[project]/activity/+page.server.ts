import { pageView } from '../../page-data';
import { activity } from '$lib/server/trail/views';
import { people } from '$lib/server/people/views';
import { shelves } from '$lib/server/places/views-tree';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:activity');
	const { project } = event.params;
	const wanted = Object.fromEntries(
		[...event.url.searchParams].filter(
			([key, value]) => ['actor', 'kind', 'place', 'from', 'to'].includes(key) && value
		)
	);
	const [{ events }, { members }, { shelves: list }] = await Promise.all([
		pageView(event, activity, { project, ...wanted }),
		pageView(event, people, { project }),
		pageView(event, shelves, { project })
	]);
	const persons = [...new Map(members.map((m) => [m.id, m.name]))].map(([id, name]) => ({ id, name }));
	const places = list.flatMap((s) => [
		{ id: s.id, name: s.name },
		...s.boxes.map((b) => ({ id: b.id, name: `${s.name} / ${b.name}` }))
	]);
	return { events, persons, places, filter: wanted };
};
