import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { Problem } from '$lib/core/problem';
import { makeAuth } from '$lib/server/auth';
import type { Actor } from '$lib/server/actor';
import { readProofs } from '$lib/server/proofs';
import { problemResponse, unexpected } from '$lib/server/http/respond';
import { startServices } from '$lib/server/start';
import type { App } from './app.d';

const holder = globalThis as { cupboard?: App.Locals['app'] };

export const init: ServerInit = async () => {
	if (building || holder.cupboard) return;
	const services = await startServices();
	const auth = makeAuth(services.config, services.database);
	services.rooms.identify = async (headers) =>
		lookingAs(await auth.actor(headers), cookieIn(headers, TRY_COOKIE));
	holder.cupboard = { services, auth };
};

/** Names the project and the person somebody looks as; whether they may is decided with every request. */
const TRY_COOKIE = 'cupboard-try';

function lookingAs(actor: Actor, cookie: string | undefined): Actor {
	const [projectId, personId] = cookie?.split('.') ?? [];
	if (!actor || actor.via !== 'session' || !projectId || !personId) return actor;
	return { ...actor, trying: { projectId, personId } };
}

/** One cookie of a request that the framework does not handle. */
function cookieIn(headers: Headers, name: string): string | undefined {
	return headers
		.get('cookie')
		?.split('; ')
		.find((one) => one.startsWith(`${name}=`))
		?.slice(name.length + 1);
}

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

export const handle: Handle = async ({ event, resolve }) => {
	const app = holder.cupboard!;
	const { request, url } = event;
	event.locals.app = app;
	event.locals.actor = null;
	event.locals.proofs = [];
	try {
		// A change that carries a cookie must come from our own pages.
		const bearer = request.headers.has('authorization');
		if (CHANGES.has(request.method) && !bearer && request.headers.get('origin') !== url.origin) {
			throw new Problem('wrong-origin', 'This request did not come from a page of Cupboard.');
		}
		event.locals.actor = lookingAs(await app.auth.actor(request.headers), event.cookies.get(TRY_COOKIE));
		event.locals.proofs = readProofs(app.services.config.secret, event.cookies.getAll());
	} catch (error) {
		return problemResponse(error);
	}
	const response = await resolve(event, {
		preload: ({ type }) => type === 'js' || type === 'css' || type === 'font'
	});
	const { headers } = response;
	// A page made for frames elsewhere is the only one that may stand in them; its load checks the pass.
	const policy = headers.get('content-security-policy');
	if (policy && response.status === 200 && /^\/pass\/[^/]+\/embed$/.test(url.pathname))
		headers.set('content-security-policy', policy.replace(/frame-ancestors [^;]+/, 'frame-ancestors *'));
	if (!headers.has('x-content-type-options')) headers.set('x-content-type-options', 'nosniff');
	headers.set('referrer-policy', 'no-referrer');
	headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
	if (event.locals.actor && !headers.has('cache-control')) headers.set('cache-control', 'private, no-store');
	return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
	if (error instanceof Problem) return { message: error.sentence, code: error.code };
	if (status === 404) return { message: 'There is nothing at this address.', code: 'not-found' };
	if (status < 500) return { message, code: 'invalid' };
	return { message: unexpected(error).sentence, code: 'busy' };
};
