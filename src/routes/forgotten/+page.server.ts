import { fail } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { askRenewal } from '$lib/server/acts/account';
import { runAct } from '$lib/server/acts/run';
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
