import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { frame } = await parent();
	if (!frame.me.controller)
		error(403, { message: 'Only a document controller of the project can do this.', code: 'needs-level' });
};
