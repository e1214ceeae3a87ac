import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/acts/run';
import { commentSheetResponse } from '$lib/server/http/comment-sheet';
import { problemResponse } from '$lib/server/http/respond';
import { documentView } from '$lib/server/views/documents';
import { remarks } from '$lib/server/views/remarks';

/** All remarks on a document as a comment sheet, XLSX or PDF. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { row, project } = await readView(services, documentView, locals.actor, params);
		const found = await readView(services, remarks, locals.actor, params);
		const format = url.searchParams.get('format') === 'pdf' ? 'pdf' : 'xlsx';
		return await commentSheetResponse(services, format, { ...row, project }, found.remarks);
	} catch (error) {
		return problemResponse(error);
	}
};
