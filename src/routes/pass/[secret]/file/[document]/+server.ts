import type { RequestHandler } from '@sveltejs/kit';
import { contentOut } from '$lib/server/content/giving';
import { copyResponse } from '$lib/server/releases/file';
import { problemResponse } from '$lib/server/platform/http/respond';
import { byPass } from './content';

/** The bytes of a document that a pass leads to, where it is for taking; where copies carry a stamp or marks, only those. */
export const GET: RequestHandler = async (event) => {
	try {
		const { services } = event.locals.app;
		const { file, note } = await byPass(event);
		return await contentOut(services, event.request, file, {
			mayGive: file.mayGive,
			copies: file.copies,
			opened: () => note('opened'),
			given: async (ranged) => {
				const copy = await note('downloaded', ranged);
				if (copy) return copyResponse(services, copy, copy);
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
