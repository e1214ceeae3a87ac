import type { RequestHandler } from '@sveltejs/kit';
import { FILES } from '$lib/contract/files';
import { releaseCommentSheet, releaseNumber } from '$lib/core/releases';
import { listResponse } from '$lib/server/formats/lists/give-list';
import { queryInput } from '$lib/server/platform/http/query';
import { problemResponse } from '$lib/server/platform/http/respond';
import { parseInput } from '$lib/server/platform/runner/input';
import { readView } from '$lib/server/platform/runner/run';
import { releaseAnswers } from '$lib/server/releases/views-answers';

/** Everything that was answered to a release as a comment sheet, XLSX or PDF. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { format, release } = parseInput(FILES.releaseCommentSheet.input, {
			...queryInput(url.searchParams),
			...params
		});
		const { rows, ...about } = await readView(services, releaseAnswers, locals.actor, { release });
		const list = releaseCommentSheet(about, rows, new Date());
		const name = `${about.project.code} release ${releaseNumber(about.number)} comments`;
		return await listResponse(services, format, list, name);
	} catch (error) {
		return problemResponse(error);
	}
};
