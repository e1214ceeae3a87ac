import type { RequestHandler } from '@sveltejs/kit';
import { contentOut } from '$lib/server/http/giving';
import { stampedResponse } from '$lib/server/http/release-file';
import { problemResponse } from '$lib/server/http/respond';
import { byPass } from './content';

/** The bytes of a document that a pass leads to, where it is for taking; a stamped pass gives stamped copies only. */
export const GET: RequestHandler = async (event) => {
	try {
		const { services } = event.locals.app;
		const { file, note } = await byPass(event);
		return await contentOut(services, event.request, file, {
			mayGive: file.mayGive,
			copies: file.copies,
			opened: () => note('opened'),
			given: async (ranged) => {
				const stamped = await note('downloaded', ranged);
				if (stamped) return stampedResponse(services, stamped, stamped.stamp);
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
