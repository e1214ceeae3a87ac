import type { Cookies } from '@sveltejs/kit';

/** Hands the cookies that the sign-in library made on to the browser as they are. */
export function setCookies(cookies: Cookies, headers: string[]): void {
	for (const header of headers) {
		const [pair = '', ...rest] = header.split(';').map((part) => part.trim());
		const at = pair.indexOf('=');
		const attributes = new Map(
			rest.map((part) => [part.split('=')[0]!.toLowerCase(), part.split('=')[1] ?? ''])
		);
		const maxAge = attributes.get('max-age');
		cookies.set(pair.slice(0, at), decodeURIComponent(pair.slice(at + 1)), {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: attributes.has('secure'),
			...(maxAge === undefined ? {} : { maxAge: Number(maxAge) })
		});
	}
}
