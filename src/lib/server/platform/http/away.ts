import { Problem } from '../../../core/acts/problem';

/** What the driver and PostgreSQL say when the database cannot be reached, or is only starting or stopping. */
const AWAY = new Set([
	'ECONNREFUSED',
	'ECONNRESET',
	'EPIPE',
	'ENOENT',
	'ENOTFOUND',
	'ETIMEDOUT',
	'EAI_AGAIN',
	'CONNECTION_CLOSED',
	'CONNECTION_ENDED',
	'CONNECTION_DESTROYED',
	'CONNECT_TIMEOUT',
	'57P01',
	'57P02',
	'57P03',
	'53300',
	'08000',
	'08003',
	'08006'
]);

/** Whether an error means that the database is away for a moment. */
export function databaseIsAway(error: unknown): boolean {
	for (let at = error; at; at = (at as { cause?: unknown }).cause) {
		const { code, syscall } = at as { code?: string; syscall?: string };
		// A file that is not there is no database that is not there.
		if (code && AWAY.has(code) && !(code === 'ENOENT' && syscall !== 'connect')) return true;
		if (at === (at as { cause?: unknown }).cause) break;
	}
	return false;
}

/** What people are told then. */
export const AWAY_PROBLEM = () =>
	new Problem('busy', 'The database cannot be reached at the moment. Nothing was changed.', {
		away: true,
		seconds: 3
	});

/** A page that says so and comes back by itself; it needs nothing that the database would have to give. */
export function awayPage(sentence: string, seconds: number): Response {
	const text = sentence.replace(/[<>&]/g, '');
	const body = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="${seconds}"><title>Cupboard is away for a moment</title>
<style>body{font:15px/1.5 sans-serif;background:#e9eeea;color:#17231f;display:grid;place-items:center;min-height:90vh;margin:0}
main{border:1px solid #17231f;background:#fbfcfa;padding:24px 32px;max-width:34rem}h1{font-size:18px;margin:0 0 8px}</style></head>
<body><main><h1>Cupboard is away for a moment</h1><p>${text}</p><p>This page asks again by itself every few seconds, and comes back as soon as it can.</p></main></body></html>`;
	return new Response(body, {
		status: 503,
		headers: {
			'content-type': 'text/html; charset=utf-8',
			'cache-control': 'no-store',
			'retry-after': String(seconds),
			'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'"
		}
	});
}
