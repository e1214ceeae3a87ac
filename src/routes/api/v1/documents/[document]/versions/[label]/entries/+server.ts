import { Readable } from 'node:stream';
import { json, type RequestHandler } from '@sveltejs/kit';
import { familyOf } from '$lib/core/files/kinds';
import { Problem } from '$lib/core/acts/problem';
import { downloadDocument, openDocument } from '$lib/server/documents/acts';
import { readView, runAct } from '$lib/server/platform/runner/run';
import { openEntry } from '$lib/server/formats/archive';
import { askingOf, type Held } from '$lib/server/content/giving';
import type { Services } from '$lib/server/platform/services';
import { wayOut } from '$lib/core/files/giving';
import { entryResponse, problemResponse } from '$lib/server/platform/http/respond';
import { versionContent } from '$lib/server/documents/views';

/** The files inside a stored archive, or those that came with a stored mail. */
async function entriesOf(services: Services, file: Held, isMail: boolean) {
	if (!isMail) return services.inspector.listArchive(file.hash);
	const mail = await services.inspector.shown(file.hash, file.mediaType, file.size);
	const attachments = mail.kind === 'mail' ? mail.attachments : [];
	return { entries: attachments.map((one) => ({ ...one, locked: false })), more: false };
}

async function attachmentEntry(services: Services, file: Held, name: string) {
	const bytes = await services.inspector.attachment(file, name);
	return { size: bytes.byteLength, stream: Readable.from([Buffer.from(bytes)]) };
}

/** The files inside a stored archive or mail; with `name`, one of them, for those who may take it. */
export const GET: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const file = await readView(services, versionContent, locals.actor, params);
		const family = familyOf(file.mediaType);
		const isMail = family === 'mail';
		if (family !== 'archive' && !isMail)
			throw new Problem('invalid', 'This is neither an archive nor a mail.');
		const name = url.searchParams.get('name');
		if (name === null) return json(await entriesOf(services, file, isMail));
		// What kind of file it is stands inside; a browser that does not say what it wants it for, takes it.
		const out = wayOut(askingOf(request, false), file.mayGive);
		if (out === 'no') throw new Problem('wrong-origin', 'A download begins when somebody chooses it.');
		if (out === 'made')
			throw new Problem('needs-level', 'At View the files of an archive are listed, and not opened.', {
				needed: 'download'
			});
		const given = out === 'give';
		if (given) await runAct(services, downloadDocument, locals.actor, params);
		else await runAct(services, openDocument, locals.actor, params);
		const entry = isMail
			? await attachmentEntry(services, file, name)
			: await openEntry(await services.store.localPath(file.hash), name);
		return await entryResponse(entry, name, given ? 'download' : 'show');
	} catch (error) {
		return problemResponse(error);
	}
};
