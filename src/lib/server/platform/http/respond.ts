import { relative } from 'node:path';
import { Readable } from 'node:stream';
import { Problem } from '../../../core/acts/problem';
import { isInline } from '../../../core/files/kinds';
import { HEAD_BYTES, sniff } from '../../formats/sniff';
import { log } from '../log';
import { BODY } from './bodies';
import { AWAY_PROBLEM, databaseIsAway } from './away';
import type { Services } from '../services';

/** A problem document for whatever went wrong; what is not meant for people is logged and hidden. */
export function problemResponse(error: unknown): Response {
	const problem = error instanceof Problem ? error : unexpected(error);
	const { seconds } = problem.facts;
	return new Response(JSON.stringify(problem.document()), {
		status: problem.status,
		headers: {
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			...(typeof seconds === 'number' ? { 'retry-after': String(seconds) } : {})
		}
	});
}

/** Logs what nobody foresaw and gives the sentence that is shown instead. */
export function unexpected(error: unknown): Problem {
	const code = (error as { code?: string })?.code;
	if (databaseIsAway(error)) return AWAY_PROBLEM();
	log.error(
		{
			error: error instanceof Error ? `${error.name}: ${error.message}` : String(error),
			stack: (error as Error)?.stack
		},
		'unexpected'
	);
	if (code === 'ENOSPC') return new Problem('full', 'The disk of the server is full. Nothing was changed.');
	return new Problem(
		'busy',
		'Something went wrong on the server. Nothing was changed; try again in a moment.'
	);
}

/** The header that says whether a file is shown or kept, and under which name (RFC 6266). */
export function dispositionOf(kind: 'inline' | 'attachment', fileName: string): string {
	const plain = fileName.replace(/[^\x20-\x7e]|["\\%]/g, '_');
	return `${kind}; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(fileName).replace(/['()*]/g, (c) => '%' + c.charCodeAt(0).toString(16).toUpperCase())}`;
}

/** Sends a file that was made for who asks, to be kept; nothing between keeps it. */
export function madeResponse(bytes: Uint8Array, mediaType: string, fileName: string): Response {
	return new Response(bytes as Uint8Array<ArrayBuffer>, {
		headers: {
			'content-type': mediaType,
			'content-length': String(bytes.byteLength),
			'content-disposition': dispositionOf('attachment', fileName),
			'x-content-type-options': 'nosniff',
			'cache-control': 'private, no-store'
		}
	});
}

/** One byte range of a request (RFC 9110, 14.2), or null for the whole; undefined when it cannot be met. */
function rangeOf(header: string | null, size: number): { start: number; end: number } | null | undefined {
	const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
	if (!match || (match[1] === '' && match[2] === '')) return null;
	const start = match[1] === '' ? Math.max(0, size - Number(match[2])) : Number(match[1]);
	const end = match[1] === '' || match[2] === '' ? size - 1 : Math.min(Number(match[2]), size - 1);
	return start > end || start >= size ? undefined : { start, end };
}

/** Headers under which foreign bytes do no harm: shown only as kinds that are safe, and in a sandbox of their own. */
export function safeHeaders(
	file: { mediaType: string; fileName: string },
	how: 'show' | 'download'
): Headers {
	const inline = how === 'show' && isInline(file.mediaType);
	return new Headers({
		'content-type': inline
			? file.mediaType.startsWith('text/')
				? 'text/plain; charset=utf-8'
				: file.mediaType
			: 'application/octet-stream',
		'content-disposition': dispositionOf(inline ? 'inline' : 'attachment', file.fileName),
		'content-security-policy': "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:",
		'x-content-type-options': 'nosniff',
		'cross-origin-resource-policy': 'same-origin'
	});
}

/** Sends one file of an archive, unpacked on the way; its kind is told by its first bytes. */
export async function entryResponse(
	entry: { size: number; stream: Readable },
	name: string,
	how: 'show' | 'download'
): Promise<Response> {
	const pieces = entry.stream[Symbol.asyncIterator]() as AsyncIterator<Uint8Array>;
	const head: Uint8Array[] = [];
	let kept = 0;
	while (kept < HEAD_BYTES) {
		const { value, done } = await pieces.next();
		if (done) break;
		head.push(value);
		kept += value.byteLength;
	}
	const fileName = name.split('/').at(-1)!;
	const mediaType = await sniff(Buffer.concat(head).subarray(0, HEAD_BYTES), fileName);
	const headers = safeHeaders({ mediaType, fileName }, how);
	headers.set('content-length', String(entry.size));
	headers.set('x-media-type', mediaType);
	async function* whole() {
		yield* head;
		for (let next = await pieces.next(); !next.done; next = await pieces.next()) yield next.value;
	}
	return new Response(Readable.toWeb(Readable.from(whole())) as ReadableStream, { headers });
}

/** Sends stored bytes: on screen only kinds that are safe there, in a sandbox of their own; else as a download. */
export async function fileResponse(
	services: Services,
	request: Request,
	file: { hash: string; size: number; mediaType: string; fileName: string },
	how: 'show' | 'download'
): Promise<Response> {
	const headers = safeHeaders(file, how);
	headers.set('accept-ranges', 'bytes');
	headers.set('etag', `"${file.hash}"`);
	headers.set('cache-control', 'private, no-cache');
	if (request.headers.get('if-none-match') === `"${file.hash}"`)
		return new Response(null, { status: 304, headers });
	// Said before anything is sent: an answer that breaks off tells nobody what is wrong.
	if (!(await services.store.has(file.hash)))
		throw new Problem(
			'conflict',
			'The stored content of this is gone from the server. Its history is kept; tell whoever looks after Cupboard, who can bring it back from a backup.',
			{ hash: file.hash }
		);
	const { frontStore, store } = services.config;
	if (frontStore !== null) {
		// What was decided here, the front server sends: the whole or the range that was asked for.
		const way = relative(store, await services.store.localPath(file.hash));
		headers.set('x-accel-redirect', `${frontStore}/${way}`);
		return new Response(null, { headers });
	}
	const range = rangeOf(request.headers.get('range'), file.size);
	if (range === undefined) {
		headers.set('content-range', `bytes */${file.size}`);
		return new Response(null, { status: 416, headers });
	}
	if (range) headers.set('content-range', `bytes ${range.start}-${range.end}/${file.size}`);
	headers.set('content-length', String(range ? range.end - range.start + 1 : file.size));
	const status = range ? 206 : 200;
	const open = () => services.store.read(file.hash, range ?? undefined);
	if (services.bodies.fetched) {
		headers.set(BODY, services.bodies.keep(open));
		return new Response(null, { status, headers });
	}
	return new Response(Readable.toWeb(open()) as ReadableStream, { status, headers });
}
