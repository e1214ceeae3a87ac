import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';
import type { BlockList } from 'node:net';
import { building } from '$app/environment';
import { Problem } from '$lib/core/acts/problem';
import { makeAuth } from '$lib/server/platform/auth/auth';
import type { Actor } from '$lib/server/platform/runner/actor';
import { readProofs } from '$lib/server/platform/auth/proofs';
import { clientAddress, trustedProxies } from '$lib/server/platform/http/address';
import { awayPage } from '$lib/server/platform/http/away';
import { bodyLimit, withBoundedBody } from '$lib/server/platform/http/body';
import { load } from '$lib/server/platform/http/load';
import { problemResponse, unexpected } from '$lib/server/platform/http/respond';
import { checkTries, countTry } from '$lib/server/platform/auth/tries';
import { startServices } from '$lib/server/api/start';
import type { App } from './app.d';

let proxies: BlockList | null = null;
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
/** Addresses that can be guessed: passes and hatches may have endings of their maker's choice. */
const GUESSABLE = /^\/(?:api\/v1\/)?(?:pass|passes|hatch|hatches|invited|invitations|renew|renewals)\//;

/**
 * Whether a change without a token comes from our own pages. Browsers say where one comes from; a program that says
 * nothing brings no cookie that would give it anything either, only what it was given: the secret of an invitation.
 */
function fromOurPages(headers: Headers, own: string): boolean {
	const origin = headers.get('origin');
	return origin === null ? !headers.has('cookie') && !headers.has('sec-fetch-site') : origin === own;
}

/**
 * Everything that holds for every request, in this order: how full the process is, how large the body may be, who asks,
 * and whether a change comes from our own pages. Gives the function that ends what it began.
 */
async function admit(event: RequestEvent): Promise<() => void> {
	const { auth, services } = holder.cupboard!;
	const { url, locals } = event;
	const { database, config } = services;
	const carriesProof = /session_token|^bearer /i.test(
		`${event.request.headers.get('authorization') ?? ''} ${event.request.headers.get('cookie') ?? ''}`
	);
	load.checkMemory(config.memoryMark, carriesProof);
	let done = () => {};
	locals.actor = lookingAs(await auth.actor(event.request.headers), event.cookies.get(TRY_COOKIE));
	locals.proofs = readProofs(config.secret, event.cookies.getAll());
	load.checkMemory(config.memoryMark, locals.actor !== null);
	const { method, headers } = event.request;
	if (CHANGES.has(method) && locals.actor?.via !== 'token' && !fromOurPages(headers, url.origin))
		throw new Problem('wrong-origin', 'This request did not come from a page of Cupboard.');
	if (CHANGES.has(method) && locals.actor?.scope === 'read')
		throw new Problem('needs-level', 'This token is for reading only. Nothing was changed.');
	if (GUESSABLE.test(url.pathname)) await checkTries(database, 'address', locals.address);
	const limit = bodyLimit(url.pathname, locals.actor !== null);
	if (event.request.body) {
		done = load.begin('body', locals.address, locals.actor?.person.id ?? null);
		try {
			if (limit !== null) event.request = await withBoundedBody(event.request, limit);
		} catch (error) {
			done();
			throw error;
		}
	}
	return done;
}

/** A problem as whoever asked can read it: a page for a browser that goes somewhere, else a problem document. */
function refused(event: RequestEvent, error: unknown): Response {
	const problem = error instanceof Problem ? error : unexpected(error);
	const asksPage = event.request.headers.get('accept')?.includes('text/html') ?? false;
	if (problem.status === 503 && asksPage)
		return awayPage(problem.sentence, Number(problem.facts.seconds ?? 5));
	return problemResponse(problem);
}

export const handle: Handle = async ({ event, resolve }) => {
	const app = holder.cupboard!;
	event.locals.app = app;
	event.locals.actor = null;
	event.locals.proofs = [];
	proxies ??= trustedProxies(app.services.config.trustedProxies);
	event.locals.address = clientAddress(event.getClientAddress(), event.request.headers, proxies);
	let done: () => void;
	try {
		done = await admit(event);
	} catch (error) {
		return refused(event, error);
	}
	try {
		return await answer(event, resolve);
	} finally {
		done();
	}
};

async function answer(event: RequestEvent, resolve: Parameters<Handle>[0]['resolve']): Promise<Response> {
	const { url } = event;
	const response = await resolve(event, {
		// Letters beyond Latin's are fetched where a page shows one.
		preload: ({ type, path }) => type === 'js' || type === 'css' || (type === 'font' && /-latin-w/.test(path))
	});
	const { headers } = response;
	if (response.status === 404 && GUESSABLE.test(url.pathname))
		await countTry(holder.cupboard!.services.database, 'address', event.locals.address).catch(() => {});
	// A page made for frames elsewhere is the only one that may stand in them; its load checks the pass.
	const policy = headers.get('content-security-policy');
	if (policy && response.status === 200 && /^\/pass\/[^/]+\/embed$/.test(url.pathname))
		headers.set('content-security-policy', policy.replace(/frame-ancestors [^;]+/, 'frame-ancestors *'));
	if (!headers.has('x-content-type-options')) headers.set('x-content-type-options', 'nosniff');
	// Within the application the origin has to be known, or the browser says none with a form; nobody else learns it.
	headers.set('referrer-policy', 'same-origin');
	headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
	if (event.locals.actor && !headers.has('cache-control')) headers.set('cache-control', 'private, no-store');
	return response;
}

export const handleError: HandleServerError = ({ error, status, message }) => {
	if (error instanceof Problem) return { message: error.sentence, code: error.code };
	if (status === 404) return { message: 'There is nothing at this address.', code: 'not-found' };
	if (status < 500) return { message, code: 'invalid' };
	const { sentence, code } = unexpected(error);
	return { message: sentence, code };
};
