import { error } from '@sveltejs/kit';
import { subjectOf } from '$lib/core/help/subjects';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) => {
	const subject = subjectOf(params.subject);
	if (!subject) error(404, 'There is no such subject.');
	return { subject };
};
