import type { Cookies } from '@sveltejs/kit';
import { parseSetCookieHeader, toCookieOptions } from 'better-auth/cookies';

/** Hands the cookies that the sign-in library made on to the browser as they are. */
export function setCookies(cookies: Cookies, headers: string[]): void {
	for (const header of headers)
		for (const [name, attributes] of parseSetCookieHeader(header)) {
			const options = toCookieOptions(attributes);
			// Where it does not say so, SvelteKit would choose.
			cookies.set(name, attributes.value, {
				...options,
				path: options.path ?? '/',
				secure: options.secure ?? false
			});
		}
}
