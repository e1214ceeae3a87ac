import type { RequestHandler } from '@sveltejs/kit';
import { contentOut } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { byPass } from '../../file/[document]/content';

/** The bytes of a document as the holder of a release's pass had it before, to compare with. */
export const GET: RequestHandler = async (event) => {
	try {
		const { file, note } = await byPass(event, true);
		return await contentOut(event.locals.app.services, event.request, file, {
			mayGive: file.mayGive,
			opened: () => note('opened'),
			given: async (ranged) => void (await note('downloaded', ranged))
		});
	} catch (error) {
		return problemResponse(error);
	}
};
