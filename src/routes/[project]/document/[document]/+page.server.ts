import { allows } from '$lib/core/access/levels';
import { OVER_ITS_FILE } from '$lib/core/live/live';
import { error } from '@sveltejs/kit';
import { pageView } from '../../../page-data';
import { documentView } from '$lib/server/documents/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:document');
	const { document } = event.params;
	const view = await pageView(event, documentView, { document });
	const beside = event.url.searchParams.get('side');
	const side = beside === null ? null : (view.sides.find((s) => s.number === Number(beside)) ?? null);
	if (beside !== null && !side)
		error(404, { message: `There is no side version ${beside} of ${view.row.number}.`, code: 'not-found' });
	const asked = event.url.searchParams.get('version');
	const wanted = asked ?? view.row.label;
	const version = view.versions.find((v) => v.label === wanted);
	if (!version)
		error(404, { message: `There is no version ${wanted} of ${view.row.number}.`, code: 'not-found' });
	// Without a version named, what is edited together shows as it is now; not to who looks as somebody else.
	// A drawing is drawn over its own file, which those who may only look do not get; they see its newest version.
	const withheld = view.room !== null && OVER_ITS_FILE[view.room.kind] && !allows(view.level, 'download');
	const live = side || asked || withheld || event.locals.actor?.trying ? null : view.room;
	return { view, version, side, live };
};
