import type { RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { splitExtension } from '$lib/core/files/names';
import { runAct } from '$lib/server/platform/runner/run';
import { downloadMany } from '$lib/server/places/acts-copies';
import { zipResponse } from '$lib/server/releases/file';
import { readForm } from '$lib/server/platform/http/body';
import { problemResponse } from '$lib/server/platform/http/respond';

/** A folder's name as a step of a way within an archive: nothing that leads out of it. */
const safeStep = (name: string) => name.replace(/[\\/:*?"<>|]/g, '_').replace(/^\.+/, '_') || '_';

/** What is asked for: as JSON by a program, as a form by a page, which has the browser take the answer as a file. */
async function chosenIn(request: Request): Promise<object> {
	if (request.headers.get('content-type')?.includes('json')) {
		const body: unknown = await request.json().catch(() => null);
		if (body && typeof body === 'object') return body;
		throw new Problem('invalid', 'Send the ids as JSON: {"documents": […], "folders": […]}.');
	}
	const form = await readForm(request);
	const listed = (name: string) =>
		String(form.get(name) ?? '')
			.split(',')
			.filter(Boolean);
	return { documents: listed('documents'), folders: listed('folders') };
}

/** The newest versions of chosen documents and folders as one zip, named by number and revision. */
export const POST: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const chosen = await chosenIn(request);
		const { files } = await runAct(services, downloadMany, locals.actor, { ...chosen, ...params });
		const named = files.map((f) => {
			const [, extension] = splitExtension(f.fileName);
			const name = `${f.number}_${f.label}${extension ? `.${extension}` : ''}`;
			return { path: [...f.way.map(safeStep), name].join('/'), sha256: f.hash, made: null };
		});
		return zipResponse(services, named, `${params.project}-documents.zip`);
	} catch (error) {
		return problemResponse(error);
	}
};
