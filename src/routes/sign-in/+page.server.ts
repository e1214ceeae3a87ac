import { fail, redirect, type Cookies } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { waitsForFirst } from '$lib/server/people/first';
import { setCookies } from '../cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
	if (locals.actor) redirect(303, '/');
	const { services } = locals.app;
	if (await waitsForFirst(services.database)) redirect(303, '/first');
	return { demo: services.config.demo };
};

/** Goes on to where somebody wanted to go; only ways inside Cupboard, as the browser itself will read them. */
function goOn(url: URL, cookies: Cookies, given: string[]): never {
	setCookies(cookies, given);
	const asked = url.searchParams.get('to') ?? '/';
	const to = URL.canParse(asked, url.origin) ? new URL(asked, url.origin) : url;
	redirect(303, to !== url && to.origin === url.origin ? to.pathname + to.search : '/');
}

export const actions: Actions = {
	password: async ({ request, locals, cookies, url }) => {
		const form = await request.formData();
		const email = String(form.get('email') ?? '');
		let given: { cookies: string[]; asksCode: boolean };
		try {
			const password = String(form.get('password') ?? '');
			given = await locals.app.auth.signIn(email, password, locals.address, request.headers);
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { email, fault: error.sentence });
			throw error;
		}
		if (!given.asksCode) goOn(url, cookies, given.cookies);
		setCookies(cookies, given.cookies);
		return { asksCode: true };
	},
	code: async ({ request, locals, cookies, url }) => {
		const form = await request.formData();
		let given: string[];
		try {
			const code = String(form.get('code') ?? '');
			given = await locals.app.auth.signInCode(code, locals.address, request.headers);
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { asksCode: true, fault: error.sentence });
			throw error;
		}
		goOn(url, cookies, given);
	}
};
