import { PassThrough, Readable } from 'node:stream';
import { eq } from 'drizzle-orm';
import yazl from 'yazl';
import { splitExtension } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { releaseNumber, type Manifest } from '../../core/releases';
import { changedCopy, type PutOn } from './outgoing';
import type { PackedFile } from './package';
import { content } from '../platform/db/schema';
import type { GivenMarks } from '../marks/marked';
import type { Services } from '../platform/services';
import { log } from '../platform/log';
import { dispositionOf, fileResponse, madeResponse, safeHeaders } from '../platform/http/respond';

/** Sends stored bytes by hash with the kind they were sniffed as. */
export async function contentResponse(
	services: Services,
	request: Request,
	hash: string,
	fileName: string,
	how: 'show' | 'download'
): Promise<Response> {
	const [row] = await services.database.db.select().from(content).where(eq(content.hash, hash));
	if (!row) throw new Problem('not-found', 'The content is not there.');
	return fileResponse(services, request, { hash, size: row.size, mediaType: row.mediaType, fileName }, how);
}

/** Sends a copy of stored bytes in their stead: with a stamp that says for whom it was made and when, with marks, or both. */
export async function copyResponse(
	services: Services,
	file: { hash: string; fileName: string; mediaType: string; size: number; number: string; label: string },
	{ stamp, marks }: { stamp: string | null; marks: GivenMarks | null }
): Promise<Response> {
	const bytes = await services.inspector.copy(file, {
		stamp: stamp === null ? null : { text: `${file.number} ${file.label} · copy for ${stamp}`, across: true },
		marks
	});
	const name = marks ? `${splitExtension(file.fileName)[0]} with marks.pdf` : file.fileName;
	return madeResponse(bytes, 'application/octet-stream', name);
}

/** Shows the stored cover note of an issued release. */
export function coverNoteResponse(
	services: Services,
	request: Request,
	note: { hash: string; number: number }
): Promise<Response> {
	return contentResponse(
		services,
		request,
		note.hash,
		`Cover note ${releaseNumber(note.number)}.pdf`,
		'show'
	);
}

/** Shows a cover note that is only drafted, and says so on it. */
export async function coverNoteDraftResponse(
	services: Services,
	{ manifest, replyBy, number }: { manifest: Manifest; replyBy: string | null; number: number }
): Promise<Response> {
	const to = [{ recipient: manifest.recipient, replyBy }];
	const bytes = (await services.inspector.coverNotes(manifest, to, true))[0]!;
	return new Response(bytes as BodyInit, {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': dispositionOf('inline', `Draft of cover note ${releaseNumber(number)}.pdf`),
			'content-length': String(bytes.byteLength),
			'x-content-type-options': 'nosniff',
			'cache-control': 'no-store'
		}
	});
}

/** Shows a document of a release as it goes out, or went: as it is, or with what is put on it. */
export async function outgoingResponse(
	services: Services,
	request: Request,
	file: { hash: string; size: number; mediaType: string; fileName: string; put: PutOn | null }
): Promise<Response> {
	if (!file.put) return fileResponse(services, request, file, 'show');
	const { bytes, mediaType } = await changedCopy(services, file, file.put);
	const headers = safeHeaders({ mediaType, fileName: file.fileName }, 'show');
	headers.set('content-length', String(bytes.byteLength));
	headers.set('cache-control', 'no-store');
	return new Response(bytes as BodyInit, { headers });
}

/** Stored files, and what was made to go with them, as one zip that is written while it is sent. */
export function zipResponse(
	services: Services,
	files: readonly Pick<PackedFile, 'path' | 'sha256' | 'made'>[],
	zipName: string
): Response {
	const zip = new yazl.ZipFile();
	const mtime = new Date();
	for (const { path, sha256, made } of files)
		if (made !== null) zip.addBuffer(Buffer.from(made, 'base64'), path, { mtime });
		else
			zip.addReadStreamLazy(path, { mtime, compress: packs(path) }, (done) =>
				done(null, services.store.read(sha256))
			);
	zip.end();
	const through = new PassThrough();
	zip.on('error', (error: Error) => {
		log.error({ error: error.message }, 'zip');
		through.destroy(error);
	});
	zip.outputStream.pipe(through);
	return new Response(Readable.toWeb(through) as ReadableStream, {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': dispositionOf('attachment', zipName),
			'x-content-type-options': 'nosniff',
			'cache-control': 'no-store'
		}
	});
}

/** Whether a file gets smaller in a zip; what is packed already is not packed again. */
const packs = (name: string): boolean => !/\.(zip|docx|xlsx|odt|ods|pptx|jpe?g|png|mp4|webm)$/i.test(name);
