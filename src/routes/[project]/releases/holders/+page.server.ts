import { pageView } from '../../../page-data';
import { holders } from '$lib/server/releases/views-holders';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:holders');
	const { searchParams } = event.url;
	const only = searchParams.get('only') ?? 'all';
	const department = searchParams.get('department');
	const shown = { only: ['old', 'unconfirmed'].includes(only) ? only : 'all', department: department ?? '' };
	const list = await pageView(event, holders, {
		project: event.params.project,
		only: shown.only,
		...(department ? { department } : {})
	});
	return { list, shown };
};
