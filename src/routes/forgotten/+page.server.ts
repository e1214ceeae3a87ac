import { fail } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { askRenewal } from '$lib/server/people/acts-account';
import { runAct } from '$lib/server/platform/runner/run';
import type { Actions } from './$types';

export const actions: Actions = {
	default: async ({ request, locals }) => {
		const email = String((await request.formData()).get('email') ?? '');
		try {
			await runAct(locals.app.services, askRenewal, null, { email });
			return { sent: email };
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { email, fault: error.sentence });
			throw error;
		}
	}
};
