import { redirect } from '@sveltejs/kit';
import { setCookies } from '../cookies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => redirect(303, '/');

export const actions: Actions = {
	default: async ({ request, locals, cookies }) => {
		setCookies(cookies, await locals.app.auth.signOut(request.headers));
		redirect(303, '/sign-in');
	}
};
