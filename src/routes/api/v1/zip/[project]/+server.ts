import type { RequestHandler } from '@sveltejs/kit';
import { splitExtension } from '$lib/core/names';
import { runAct } from '$lib/server/acts/run';
import { downloadMany } from '$lib/server/acts/tidy';
import { filesZip } from '$lib/server/http/release-file';
import { readForm } from '$lib/server/http/body';
import { problemResponse } from '$lib/server/http/respond';

/** The newest versions of chosen documents as one zip, named by number and revision. A form's POST: lists are long. */
export const POST: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const documents = String((await readForm(request)).get('documents') ?? '').split(',');
		const { files } = await runAct(services, downloadMany, locals.actor, { ...params, documents });
		const named = files.map((f) => {
			const [, extension] = splitExtension(f.fileName);
			return { name: `${f.number}_${f.label}${extension ? `.${extension}` : ''}`, hash: f.hash };
		});
		return filesZip(services, named, `${params.project}-documents.zip`);
	} catch (error) {
		return problemResponse(error);
	}
};
