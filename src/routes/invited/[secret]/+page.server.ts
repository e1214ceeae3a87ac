import { fail, redirect } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { acceptInvitation } from '$lib/server/people/acts-account';
import { runAct } from '$lib/server/platform/runner/run';
import { setCookies } from '../../cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => ({
	invited: await locals.app.auth.invited(params.secret)
});

export const actions: Actions = {
	default: async ({ request, locals, params, cookies }) => {
		const form = await request.formData();
		const password = String(form.get('password') ?? '');
		const name = String(form.get('name') ?? '');
		let way = '/';
		try {
			const accepted = await runAct(locals.app.services, acceptInvitation, null, {
				secret: params.secret,
				password,
				...(name.trim() ? { name } : {})
			});
			const { email } = accepted;
			way = accepted.way;
			const { cookies: given } = await locals.app.auth.signIn(
				email,
				password,
				locals.address,
				request.headers
			);
			setCookies(cookies, given);
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { fault: error.sentence, name });
			throw error;
		}
		redirect(303, way);
	}
};
