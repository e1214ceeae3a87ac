import type { RequestHandler } from '@sveltejs/kit';
import { readView } from '$lib/server/platform/runner/run';
import { commentSheetResponse } from '$lib/server/remarks/give-sheet';
import { problemResponse } from '$lib/server/platform/http/respond';
import { documentView } from '$lib/server/documents/views';
import { remarks } from '$lib/server/remarks/views';

/** All remarks on a document as a comment sheet, XLSX or PDF. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { row, project, timeZone } = await readView(services, documentView, locals.actor, params);
		const found = await readView(services, remarks, locals.actor, params);
		const format = url.searchParams.get('format') === 'pdf' ? 'pdf' : 'xlsx';
		return await commentSheetResponse(services, format, { ...row, project, timeZone }, found.remarks);
	} catch (error) {
		return problemResponse(error);
	}
};
