import { fail, redirect } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { waitsForFirst } from '$lib/server/first';
import { setCookies } from '../cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
	if (locals.actor) redirect(303, '/');
	const { services } = locals.app;
	if (await waitsForFirst(services.database)) redirect(303, '/first');
	return { demo: services.config.demo };
};

export const actions: Actions = {
	default: async ({ request, locals, cookies, url, getClientAddress }) => {
		const form = await request.formData();
		const email = String(form.get('email') ?? '');
		try {
			setCookies(
				cookies,
				await locals.app.auth.signIn(
					email,
					String(form.get('password') ?? ''),
					getClientAddress(),
					request.headers
				)
			);
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { email, fault: error.sentence });
			throw error;
		}
		const to = url.searchParams.get('to') ?? '/';
		// Only ways inside Cupboard; “//host” would lead elsewhere.
		redirect(303, /^\/(?![/\\])/.test(to) ? to : '/');
	}
};
