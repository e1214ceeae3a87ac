import type { RequestHandler } from '@sveltejs/kit';
import { shownResponse } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { byPass } from '../../../file/[document]/content';

/** What the server makes of a document as the holder of a release's pass had it before, to compare with. */
export const GET: RequestHandler = async (event) => {
	try {
		const { file, note } = await byPass(event, true);
		return await shownResponse(event.locals.app.services, event.request, file, () => note('opened'));
	} catch (error) {
		return problemResponse(error);
	}
};
