import { fail, redirect } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { renewPassword } from '$lib/server/people/acts-account';
import { runAct } from '$lib/server/platform/runner/run';
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
