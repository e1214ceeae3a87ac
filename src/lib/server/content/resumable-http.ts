import { Problem } from '../../core/acts/problem';
import type { Sender } from './content';
import { ID_LENGTH } from '../../core/acts/ids';
import { resumableOf } from './resumable';
import type { Services } from '../platform/services';

const UPLOAD_ID = new RegExp(`^[a-z0-9]{${ID_LENGTH}}$`);
const NOT_FOUND = () => new Problem('not-found', 'There is no such upload.');

/** The value of a key in the protocol's metadata header: pairs of a key and its value in Base64. */
export function metadata(request: Request, key: string): string {
	for (const pair of (request.headers.get('upload-metadata') ?? '').split(',')) {
		const [name, value] = pair.trim().split(' ');
		if (name === key) return Buffer.from(value ?? '', 'base64').toString('utf8');
	}
	return '';
}

/** One way on which files may break off and go on later. */
export interface ResumableWay {
	/** Path under which the way's uploads have their addresses. */
	base: string;
	sender: Sender;
	/**
	 * Whether a file may be begun, and how large it may be at most.
	 * @param partly bytes of the sender's that are still arriving
	 * @returns the most bytes; raises what keeps the file from coming
	 */
	admit: (file: { name: string; size: number; partly: number }) => Promise<number>;
}

/**
 * Speaks the tus protocol with a sender. An upload belongs to whoever began it; nobody can read one back here, and one
 * that arrived whole is answered from what was noted of it.
 * Raises `not-found` for uploads of others, `invalid` when it is not said how large a file will be, and what `admit` raises.
 */
export async function speakResumable(
	services: Services,
	request: Request,
	id: string,
	way: ResumableWay
): Promise<Response> {
	const { base, sender, admit } = way;
	const resumable = resumableOf(services);
	if (request.method === 'POST' && !id) {
		// How large it will be is said first: without it no limit could be held.
		const declared = request.headers.get('upload-length');
		const size = Number(declared);
		if (
			declared === null ||
			request.headers.has('upload-defer-length') ||
			!Number.isSafeInteger(size) ||
			size < 0
		)
			throw new Problem('invalid', 'Say how large the file is before sending it.');
		if (size === 0) throw new Problem('invalid', 'The file is empty. It was not kept.');
		const partly = await resumable.arriving(sender);
		const limit = await admit({ name: metadata(request, 'name'), size, partly });
		const begun = await resumable.answer(request, '', sender, limit);
		const made = begun.headers.get('location')?.split('/').at(-1);
		if (made) begun.headers.set('location', `${base}/${made}`);
		return begun;
	}
	if (!UPLOAD_ID.test(id)) throw NOT_FOUND();
	const whole = await resumable.whole(id, sender);
	if (whole) {
		// Only asking how far it came makes sense now, or asking for its receipt once more.
		const headers = {
			'tus-resumable': '1.0.0',
			'upload-offset': String(whole.size),
			'upload-length': String(whole.size),
			'cache-control': 'no-store'
		};
		return request.method === 'HEAD' ? new Response(null, { headers }) : Response.json(whole, { headers });
	}
	const begun = await resumable.begun(id, sender);
	if (!begun) throw NOT_FOUND();
	// The server may have died between the last byte and noting it: whoever asks how far it came goes on from there.
	if (begun.whole && request.method === 'HEAD') {
		await resumable.finish(id);
		return speakResumable(services, request, id, way);
	}
	if (request.method === 'POST') return Response.json(await resumable.finish(id));
	return resumable.answer(request, id, sender, Number.MAX_SAFE_INTEGER);
}
