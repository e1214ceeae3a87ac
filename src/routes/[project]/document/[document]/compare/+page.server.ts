import { error } from '@sveltejs/kit';
import { pageView } from '../../../../page-data';
import { documentView } from '$lib/server/documents/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	event.depends('cupboard:document');
	const { searchParams } = event.url;
	const view = await pageView(event, documentView, { document: event.params.document });
	const withId = searchParams.get('with');
	const other = withId ? await pageView(event, documentView, { document: withId }) : null;
	const find = (of: typeof view, label: string) => {
		const version = of.versions.find((v) => v.label === label);
		if (!version)
			error(404, { message: `There is no version ${label} of ${of.row.number}.`, code: 'not-found' });
		return version;
	};
	const newer = other ?? view;
	const to = find(newer, searchParams.get('to') ?? newer.row.label);
	const at = view.versions.findIndex((v) => v.label === to.label);
	// Without a choice: what was issued last before it, or the version before.
	const earlier = view.versions.slice(at + 1);
	const proposed = other ? view.versions[0] : (earlier.find((v) => v.issued) ?? earlier[0] ?? to);
	const from = find(view, searchParams.get('from') ?? proposed!.label);
	const beside = searchParams.get('side');
	const side = beside === null ? null : (view.sides.find((s) => s.number === Number(beside)) ?? null);
	if (beside !== null && !side)
		error(404, { message: `There is no side version ${beside} of ${view.row.number}.`, code: 'not-found' });
	return { view, other, from, to, side };
};
