import { error } from '@sveltejs/kit';
import { settings } from '$lib/server/settings/views';
import { SECTIONS } from '$lib/ui/settings/sections';
import { pageView } from '../../../page-data';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const section = SECTIONS.find((one) => one.id === (event.params.section ?? SECTIONS[0].id));
	if (!section) error(404, { message: 'There is no such part of the settings.', code: 'not-found' });
	return { section, more: await pageView(event, settings, { project: event.params.project }) };
};
