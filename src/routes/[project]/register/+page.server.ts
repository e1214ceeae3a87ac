import { pageView } from '../../page-data';
import { register } from '$lib/server/register/views';
import { registerChoices } from '$lib/server/register/views-kept';
import { askedFor, shownOf } from '$lib/ui/register/choices';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:register');
	const { project } = event.params;
	const shown = shownOf(event.url.searchParams);
	const { order, down, group } = shown;
	const [list, kept] = await Promise.all([
		pageView(event, register, { project, ...askedFor(shown), order, down, group }),
		pageView(event, registerChoices, { project })
	]);
	return { shown, list, choices: kept.choices };
};
