import { json, type RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { downloadDocument, openDocument } from '$lib/server/acts/documents';
import { readView, runAct } from '$lib/server/acts/run';
import { openEntry } from '$lib/server/formats/archive';
import { askingOf } from '$lib/server/http/giving';
import { wayOut } from '$lib/core/giving';
import { entryResponse, problemResponse } from '$lib/server/http/respond';
import { versionContent } from '$lib/server/views/documents';

/** The files inside a stored archive; with `name`, one of them, for those who may take it. */
export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		if (file.mediaType !== 'application/zip') throw new Problem('invalid', 'This is not an archive.');
		const name = url.searchParams.get('name');
		if (name === null) return json(await services.inspector.listArchive(file.hash));
		// What kind of file it is stands inside; a browser that does not say what it wants it for, takes it.
		const out = wayOut(askingOf(request, false), file.mayGive);
		if (out === 'no') throw new Problem('wrong-origin', 'A download begins when somebody chooses it.');
		if (out === 'made')
			throw new Problem('needs-level', 'At Look the files of an archive are listed, and not opened.', {
				needed: 'take'
			});
		const given = out === 'give';
		if (given) await runAct(services, downloadDocument, locals.actor, params);
		else await runAct(services, openDocument, locals.actor, params);
		const path = await services.store.localPath(file.hash);
		return await entryResponse(await openEntry(path, name), name, given ? 'download' : 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
