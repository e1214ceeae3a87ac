import { API } from '../../../core/acts/api';
import { Problem } from '../../../core/acts/problem';

/** How long a sender is heard out whose bytes are not wanted any more, in milliseconds. */
const PATIENCE = 60_000;
/** How long a small body may take to arrive, in milliseconds. */
const MOST_TIME = 30_000;

/** Largest JSON body of an act, of a form, and of what people without an account answer, in bytes. */
const MOST_JSON = 2 * 1024 * 1024;
/** A list of deliverables is as long as the register of a large project. */
const MOST_LIST = 8 * 1024 * 1024;
const LISTS = /^\/api\/v1\/projects\/[^/]+\/deliverables\/list$/;
const MOST_FORM = 64 * 1024;
const MOST_ANSWER = 512 * 1024;

/**
 * How large the body of a request may be, by its route; null for the routes that take files, which stream them and
 * limit them themselves.
 */
export function bodyLimit(path: string, signedIn: boolean): number | null {
	if (/^\/api\/v1\/uploads(\/|$)/.test(path) || /^\/hatch\/[^/]+\/files(\/|$)/.test(path)) return null;
	if (signedIn && LISTS.test(path)) return MOST_LIST;
	if (path.startsWith(`${API}/`)) return signedIn ? MOST_JSON : MOST_ANSWER;
	return MOST_FORM;
}

/**
 * The same request with its body read whole, within a bound of bytes and time, so that nothing that reads it later can
 * be made to take in more. Raises `too-large` past the bound and `invalid` for a body that does not come.
 */
export async function withBoundedBody(request: Request, limit: number): Promise<Request> {
	if (!request.body) return request;
	const large = () => new Problem('too-large', 'The request is too large.', { limit });
	if (Number(request.headers.get('content-length') ?? 0) > limit) throw large();
	const reader = request.body.getReader();
	const late = setTimeout(() => void reader.cancel().catch(() => {}), MOST_TIME);
	const chunks: Uint8Array[] = [];
	let size = 0;
	try {
		for (let next = await reader.read(); !next.done; next = await reader.read()) {
			size += next.value.byteLength;
			if (size > limit) throw large();
			chunks.push(next.value);
		}
	} catch (error) {
		if (error instanceof Problem) throw error;
		throw new Problem('invalid', 'The request broke off.');
	} finally {
		clearTimeout(late);
	}
	const declared = request.headers.get('content-length');
	if (declared !== null && size < Number(declared)) throw new Problem('invalid', 'The request broke off.');
	const { method, headers, url, signal } = request;
	return new Request(url, { method, headers, signal, body: Buffer.concat(chunks) });
}

/** The fields of a form. Raises `invalid` for a body that is none. */
export async function readForm(request: Request): Promise<FormData> {
	return request.formData().catch(() => {
		throw new Problem('invalid', 'The request is not a form.');
	});
}

/**
 * The bytes of a request as they come. When the reader stops early (a full disk, a file past its limit), the rest
 * is read and dropped: a sender that is cut off in the middle never gets to hear why.
 */
export async function* heardOut(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
	const reader = body.getReader();
	let ended = false;
	const next = async () => {
		const { value, done } = await reader.read();
		ended = done;
		return value;
	};
	try {
		for (let chunk = await next(); chunk; chunk = await next()) yield chunk;
	} finally {
		const until = Date.now() + PATIENCE;
		while (!ended && Date.now() < until) await next().catch(() => (ended = true));
	}
}
