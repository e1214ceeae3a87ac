import type { RequestHandler } from '@sveltejs/kit';
import { FILES } from '$lib/contract/files';
import { commentSheet } from '$lib/core/remarks/comment-sheet';
import { documentView } from '$lib/server/documents/views';
import { listResponse } from '$lib/server/formats/lists/give-list';
import { queryInput } from '$lib/server/platform/http/query';
import { problemResponse } from '$lib/server/platform/http/respond';
import { parseInput } from '$lib/server/platform/runner/input';
import { readView } from '$lib/server/platform/runner/run';
import { remarks } from '$lib/server/remarks/views';

/** All remarks on a document as a comment sheet, XLSX or PDF. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { format, document } = parseInput(FILES.commentSheet.input, {
			...queryInput(url.searchParams),
			...params
		});
		const { row, project, timeZone } = await readView(services, documentView, locals.actor, { document });
		const found = await readView(services, remarks, locals.actor, { document });
		const list = commentSheet({ ...row, project, timeZone }, found.remarks);
		return await listResponse(services, format, list, `${row.number}_remarks`);
	} catch (error) {
		return problemResponse(error);
	}
};
