import { fail } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { mySessions, noticeChoices } from '$lib/server/notices/views';
import { myProjects, mySecurity, myTokens } from '$lib/server/people/views';
import { renderSVG } from 'uqr';
import { setCookies } from '../cookies';
import { pageView } from '../page-data';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const [{ tokens }, { projects }, { choices }, { sessions }, security] = await Promise.all([
		pageView(event, myTokens, {}),
		pageView(event, myProjects, {}),
		pageView(event, noticeChoices, {}),
		pageView(event, mySessions, {}),
		pageView(event, mySecurity, {})
	]);
	const { name, email } = event.locals.actor!.person;
	return { tokens, projects, choices, sessions, twoStep: security.twoStep, name, email };
};

/** Does a step of two-step sign-in; what a person can mend comes back as a sentence. */
async function step<T>(doing: () => Promise<T>) {
	try {
		return await doing();
	} catch (error) {
		if (error instanceof Problem) return fail(error.status, { fault: error.sentence });
		throw error;
	}
}

export const actions: Actions = {
	beginTwoStep: async ({ request, locals }) => {
		const form = await request.formData();
		return step(async () => {
			const { uri, codes } = await locals.app.auth.beginTwoStep(
				String(form.get('password') ?? ''),
				request.headers
			);
			return {
				picture: `data:image/svg+xml;base64,${Buffer.from(renderSVG(uri)).toString('base64')}`,
				key: new URL(uri).searchParams.get('secret') ?? '',
				codes
			};
		});
	},
	confirmTwoStep: async ({ request, locals, cookies }) => {
		const form = await request.formData();
		return step(async () => {
			const code = String(form.get('code') ?? '');
			setCookies(cookies, await locals.app.auth.signInCode(code, locals.address, request.headers));
			return { twoStepIs: 'on' };
		});
	},
	endTwoStep: async ({ request, locals, cookies }) => {
		const form = await request.formData();
		return step(async () => {
			setCookies(
				cookies,
				await locals.app.auth.endTwoStep(String(form.get('password') ?? ''), request.headers)
			);
			return { twoStepIs: 'off' };
		});
	}
};
