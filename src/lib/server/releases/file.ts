import { PassThrough, Readable } from 'node:stream';
import { eq } from 'drizzle-orm';
import yazl from 'yazl';
import { splitExtension } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { releaseNumber, type Manifest } from '../../core/releases';
import { content } from '../platform/db/schema';
import type { GivenMarks } from '../marks/marked';
import type { Services } from '../platform/services';
import { log } from '../platform/log';
import { dispositionOf, fileResponse } from '../platform/http/respond';

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
	const text = stamp === null ? null : `${file.number} ${file.label} · copy for ${stamp}`;
	const bytes = await services.inspector.copy(file, { text, marks });
	const name = marks ? `${splitExtension(file.fileName)[0]} with marks.pdf` : file.fileName;
	return new Response(bytes as BodyInit, {
		headers: {
			'content-type': 'application/octet-stream',
			'content-disposition': dispositionOf('attachment', name),
			'content-length': String(bytes.byteLength),
			'x-content-type-options': 'nosniff',
			'cache-control': 'no-store'
		}
	});
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

/** A whole release as one zip, made while it is sent: documents, cover note, manifest with its signature. */
export function zipResponse(
	services: Services,
	release: {
		number: number;
		manifest: Manifest;
		signature: string;
		coverNote: string;
		files: { name: string; hash: string }[];
	}
): Response {
	const zip = new yazl.ZipFile();
	const number = releaseNumber(release.number);
	const mtime = new Date(release.manifest.issuedAt);
	const sums = release.files.map((f) => `${f.hash}  ${f.name}`).join('\n') + '\n';
	zip.addBuffer(Buffer.from(JSON.stringify(release.manifest, null, '\t')), 'manifest.json', { mtime });
	zip.addBuffer(Buffer.from(release.signature + '\n'), 'manifest.signature', { mtime });
	zip.addBuffer(Buffer.from(sums), 'sha256sums.txt', { mtime });
	const add = (hash: string, name: string) =>
		zip.addReadStreamLazy(name, { mtime, compress: true }, (done) => done(null, services.store.read(hash)));
	add(release.coverNote, `Cover note ${number}.pdf`);
	for (const file of release.files) add(file.hash, file.name);
	zip.end();
	return zipStream(zip, `release-${number}.zip`);
}

/** Several stored files as one zip, made while it is sent; what is packed already is not packed again. */
export function filesZip(
	services: Services,
	files: { name: string; hash: string }[],
	zipName: string
): Response {
	const zip = new yazl.ZipFile();
	const mtime = new Date();
	for (const file of files) {
		const compress = !/\.(zip|docx|xlsx|odt|ods|pptx|jpe?g|png|mp4|webm)$/i.test(file.name);
		zip.addReadStreamLazy(file.name, { mtime, compress }, (done) =>
			done(null, services.store.read(file.hash))
		);
	}
	zip.end();
	return zipStream(zip, zipName);
}

function zipStream(zip: yazl.ZipFile, zipName: string): Response {
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
