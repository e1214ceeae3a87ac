import { fail, redirect } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { renewPassword } from '$lib/server/acts/account';
import { runAct } from '$lib/server/acts/run';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params }) => ({
	whose: await locals.app.auth.invited(params.secret, 'renew')
});

export const actions: Actions = {
	default: async ({ request, locals, params }) => {
		const password = String((await request.formData()).get('password') ?? '');
		try {
			await runAct(locals.app.services, renewPassword, null, { secret: params.secret, password });
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { fault: error.sentence });
			throw error;
		}
		redirect(303, '/sign-in?renewed');
	}
};
