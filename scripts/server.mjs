/** Serves the built application; ends cleanly on SIGTERM: no new requests, jobs finished, connections closed. */
import { createServer } from 'node:http';
import { pipeline } from 'node:stream';
import { fileURLToPath } from 'node:url';
import { createReadableStream, getRequest, setResponse } from '@sveltejs/kit/node';
import compression from 'compression';
import sirv from 'sirv';
import { Server } from '../build/server/index.js';
import { manifest } from '../build/server/manifest.js';

const origin = new URL(process.env.ORIGIN);
const loopback = new Set(['localhost', '127.0.0.1', '[::1]']);
const client = fileURLToPath(new URL('../build/client', import.meta.url));

const application = new Server(manifest);
await application.init({ env: process.env, read: (file) => createReadableStream(`${client}/${file}`) });

const BODY = 'x-cupboard-body';
const { bodies } = globalThis.cupboard.services;
bodies.fetched = true;

/** What browsers fetch as it was built; what is named by its content stays what it is. */
const built = sirv(client, {
	etag: true,
	gzip: true,
	brotli: true,
	setHeaders: (response, path) => {
		if (path.startsWith(`/${manifest.appPath}/immutable/`) && response.statusCode === 200)
			response.setHeader('cache-control', 'public,max-age=31536000,immutable');
	}
});

/**
 * Pages and answers go packed to who takes them so: on a slow line that is what one waits for. Files go as they are,
 * with their length; notices go at once.
 */
const pack = compression({
	filter: (_, response) =>
		/^(text\/html|application\/(problem\+)?json)\b/.test(response.getHeader('content-type') ?? '') &&
		!response.hasHeader('content-disposition')
});

/** Asks the application, and sends what it answers: a body that is only named goes straight from where it lies. */
async function answer(request, response) {
	// A body without a named kind is bytes; the framework would take it for no body at all.
	request.headers['content-type'] ??= 'application/octet-stream';
	const asked = await getRequest({ base: origin.origin, request }).catch(() => null);
	if (!asked) return void response.writeHead(400).end('Bad Request');
	const answered = await application.respond(asked, {
		platform: {},
		getClientAddress: () => request.socket.remoteAddress
	});
	const name = answered.headers.get(BODY);
	if (name === null) return setResponse(response, answered);
	answered.headers.delete(BODY);
	const body = request.method === 'HEAD' ? null : bodies.fetch(name);
	if (!body) return setResponse(response, answered);
	for (const [key, value] of answered.headers)
		response.setHeader(key, key === 'set-cookie' ? answered.headers.getSetCookie() : value);
	response.writeHead(answered.status);
	// A line that breaks ends the reading, and a file that cannot be read ends the line: its length was promised.
	pipeline(body, response, (error) => error && response.destroy());
}

const server = createServer({ connectionsCheckingInterval: 5_000 }, (request, response) => {
	// A session belongs to one host name; whoever types the other name of this machine is led to the right one.
	const host = request.headers.host ?? '';
	const name = host.replace(/:\d+$/, '');
	if (
		request.method === 'GET' &&
		host !== origin.host &&
		loopback.has(name) &&
		loopback.has(origin.hostname)
	) {
		response.writeHead(307, { location: origin.origin + request.url }).end();
		return;
	}
	response.once('finish', () => dropRest(request));
	const failed = (error) => {
		console.error('unexpected:', error.message);
		response.destroy();
	};
	built(request, response, () => pack(request, response, () => answer(request, response).catch(failed)));
});
/**
 * Reads and drops what is left of a body that was answered before it was read whole. The framework holds on to it, so
 * nobody else would, and the next request on the same connection would wait behind it for ever.
 */
function dropRest(request) {
	if (request.complete) return;
	request.removeAllListeners('data');
	request.resume();
	const late = setTimeout(() => request.destroy(), 30_000);
	request.once('close', () => clearTimeout(late));
}

// A large file on a slow line takes as long as it takes, but a line on which nothing moves ends.
server.requestTimeout = 0;
server.timeout = 120_000;
server.headersTimeout = 20_000;
server.keepAliveTimeout = 65_000;
server.maxConnections = 4_000;
server.on('upgrade', (request, socket, head) =>
	globalThis.cupboard.services.rooms.upgrade(request, socket, head)
);
server.listen(Number(process.env.PORT), process.env.HOST);

// One broken request must not end the others.
process.on('uncaughtException', (error) => console.error('unexpected:', error.message));
process.on('unhandledRejection', (error) =>
	console.error('unexpected:', error instanceof Error ? error.message : error)
);

let ending = false;
async function end() {
	if (ending) return;
	ending = true;
	server.close();
	setTimeout(() => server.closeAllConnections(), 500).unref();
	setTimeout(() => process.exit(1), 10_000).unref();
	await globalThis.cupboard?.services.close();
	process.exit(0);
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
