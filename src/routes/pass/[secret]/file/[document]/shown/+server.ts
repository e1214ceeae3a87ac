import type { RequestHandler } from '@sveltejs/kit';
import { shownResponse } from '$lib/server/content/giving';
import { problemResponse } from '$lib/server/platform/http/respond';
import { byPass } from '../content';

/** What the server makes of a document that a pass leads to, where the file itself is not given out. */
export const GET: RequestHandler = async (event) => {
	try {
		const { file, note } = await byPass(event);
		return await shownResponse(event.locals.app.services, event.request, file, () => note('opened'));
	} catch (error) {
		return problemResponse(error);
	}
};
