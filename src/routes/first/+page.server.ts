import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { Problem } from '$lib/core/acts/problem';
import { password } from '$lib/contract/people';
import { email, name } from '$lib/contract/fields';
import { makeFirst, waitsForFirst } from '$lib/server/people/first';
import { setCookies } from '../cookies';
import type { Actions, PageServerLoad } from './$types';

const input = z.object({
	code: z.string().min(1, 'Enter the code from the console.').max(100),
	name,
	email,
	password
});

export const load: PageServerLoad = async ({ locals }) => {
	if (!(await waitsForFirst(locals.app.services.database))) redirect(303, '/');
};

export const actions: Actions = {
	default: async ({ request, locals, cookies }) => {
		const form = Object.fromEntries(await request.formData());
		const parsed = input.safeParse(form);
		const kept = { name: String(form.name ?? ''), email: String(form.email ?? '') };
		if (!parsed.success) return fail(422, { ...kept, fault: parsed.error.issues[0]!.message });
		try {
			await makeFirst(locals.app.services.database, parsed.data.code, parsed.data);
			const { cookies: given } = await locals.app.auth.signIn(
				parsed.data.email,
				parsed.data.password,
				locals.address,
				request.headers
			);
			setCookies(cookies, given);
		} catch (error) {
			if (error instanceof Problem) return fail(error.status, { ...kept, fault: error.sentence });
			throw error;
		}
		redirect(303, '/projects');
	}
};
