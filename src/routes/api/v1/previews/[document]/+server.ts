import { readFile } from 'node:fs/promises';
import type { RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { readView } from '$lib/server/platform/runner/run';
import { problemResponse } from '$lib/server/platform/http/respond';
import { versionContent } from '$lib/server/documents/views';

/** The preview of a version; asked for by document so that access is decided as for the document itself. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const { hash, preview } = await readView(services, versionContent, locals.actor, {
			document: params.document,
			label: url.searchParams.get('label') ?? ''
		});
		if (preview !== 'made') throw new Problem('not-found', 'There is no preview.');
		const bytes = await readFile(services.inspector.previewPath(hash));
		return new Response(new Uint8Array(bytes), {
			headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=3600', etag: `"${hash}"` }
		});
	} catch (error) {
		return problemResponse(
			(error as NodeJS.ErrnoException).code === 'ENOENT'
				? new Problem('not-found', 'There is no preview.')
				: error
		);
	}
};
