import { wayOut, type Asking } from '../../core/files/giving';
import { isInline } from '../../core/files/kinds';
import { Problem } from '../../core/acts/problem';
import type { Services } from '../platform/services';
import { fileResponse, safeHeaders } from '../platform/http/respond';

/** A stored file that somebody asks for. */
export interface Held {
	hash: string;
	size: number;
	mediaType: string;
	fileName: string;
}

/** What a request asks of a file, from its address and what the browser says of itself (Fetch Metadata). */
export function askingOf(request: Request, shows: boolean): Asking {
	const { headers } = request;
	return {
		download: new URL(request.url).searchParams.has('download'),
		destination: headers.get('sec-fetch-dest'),
		ahead: /prefetch|prerender/.test(headers.get('sec-purpose') ?? headers.get('purpose') ?? ''),
		shows
	};
}

/** One way on which content leaves: who asks is known, and how it is written down. */
export interface Way {
	/** Whether the bytes may leave: Download at the place, or a pass for taking. */
	mayGive: boolean;
	/** Notes that it was opened on screen. */
	opened: () => Promise<unknown>;
	/**
	 * Notes that it was given out, and gives another file in its stead where the copy differs (a stamp).
	 * @param ranged only a part is asked for, which goes on with a download that was noted when it began
	 */
	given: (ranged: boolean) => Promise<Response | void>;
	/** The copies that leave are made for their taker, so the file itself is never shown. */
	copies?: boolean;
}

/**
 * Answers a request for stored bytes. Every way on which content leaves comes through here, so that showing and giving
 * out are told apart once, and nothing is given out that is not noted.
 * Raises `needs-level` where only what is made from the file may be shown.
 */
export async function contentOut(
	services: Services,
	request: Request,
	file: Held,
	way: Way
): Promise<Response> {
	const out = wayOut(askingOf(request, isInline(file.mediaType)), way.mayGive);
	if (out === 'no') throw new Problem('wrong-origin', 'A download begins when somebody chooses it.');
	if (out === 'made' || (out !== 'give' && way.copies))
		throw new Problem(
			'needs-level',
			'This is for viewing: it is shown on screen, and the file itself is not given out.',
			{ needed: 'download' }
		);
	if (out === 'give') {
		const copy = await way.given(request.headers.has('range'));
		return copy ?? fileResponse(services, request, file, 'download');
	}
	if (out === 'show') await way.opened();
	return fileResponse(services, request, file, 'show');
}

/**
 * Answers with what the server makes of a file for showing it: what it is shown as, or with `part` one of its pages or
 * the words of one. The file's own bytes never reach the reader.
 * @param opened notes that it was opened; called when the showing begins
 */
export async function shownResponse(
	services: Services,
	request: Request,
	file: Held,
	opened: () => Promise<unknown>
): Promise<Response> {
	const { searchParams } = new URL(request.url);
	const part = searchParams.get('part');
	const page = Number(searchParams.get('page') ?? 1);
	const cannot = (error: unknown) => {
		if (error instanceof Problem) throw error;
		throw new Problem('invalid', 'The file is damaged, locked or too large, and cannot be shown.');
	};
	if (part === 'words')
		return Response.json(
			{ words: await services.inspector.shownWords(file.hash, file.mediaType, page).catch(cannot) },
			{ headers: { 'cache-control': 'private, max-age=600' } }
		);
	if (part === 'page') {
		const width = Number(searchParams.get('width') ?? 1_600);
		if (!Number.isInteger(page) || page < 1 || !Number.isFinite(width))
			throw new Problem('invalid', 'There is no such page.');
		const picture = await services.inspector.shownPage(file, page, width).catch(cannot);
		const headers = safeHeaders({ mediaType: picture.mediaType, fileName: `page-${page}` }, 'show');
		headers.set('cache-control', 'private, max-age=600');
		return new Response(picture.bytes as Uint8Array<ArrayBuffer>, { headers });
	}
	if (part !== null) throw new Problem('invalid', 'There is no such part.');
	await opened();
	const printed = searchParams.has('printed');
	const shown = await services.inspector.shown(file.hash, file.mediaType, file.size, printed).catch(cannot);
	return Response.json(shown, { headers: { 'cache-control': 'private, no-store' } });
}
