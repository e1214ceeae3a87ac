import { json, type RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { downloadDocument, openDocument } from '$lib/server/acts/documents';
import { readView, runAct } from '$lib/server/acts/run';
import { listArchive, openEntry } from '$lib/server/formats/archive';
import { entryResponse, problemResponse } from '$lib/server/http/respond';
import { versionContent } from '$lib/server/views/documents';

/** The files inside a stored archive; with `name`, one of them. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		if (file.mediaType !== 'application/zip') throw new Problem('invalid', 'This is not an archive.');
		const path = await services.store.localPath(file.hash);
		const name = url.searchParams.get('name');
		if (name === null) return json(await listArchive(path));
		const download = url.searchParams.has('download');
		if (download) await runAct(services, downloadDocument, locals.actor, params);
		else await runAct(services, openDocument, locals.actor, params);
		return await entryResponse(await openEntry(path, name), name, download ? 'download' : 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
