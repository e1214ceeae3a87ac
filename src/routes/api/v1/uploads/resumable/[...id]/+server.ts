import type { RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { sizeText } from '$lib/core/files/sizes';
import { readView } from '$lib/server/platform/runner/run';
import { problemResponse } from '$lib/server/platform/http/respond';
import { metadata, speakResumable } from '$lib/server/content/resumable-http';
import { RESUMABLE_PATH } from '$lib/server/content/resumable';
import { checkMember } from '$lib/server/content/waiting';
import { projectFrame } from '$lib/server/places/views';

/** Files of members that may break off and go on later. */
const answer: RequestHandler = async ({ locals, request, params }) => {
	const { services } = locals.app;
	try {
		if (!locals.actor) throw new Problem('needs-sign-in', 'Sign in first.');
		const { actor } = locals;
		const personId = actor.person.id;
		return await speakResumable(services, request, params.id ?? '', {
			base: RESUMABLE_PATH,
			sender: { personId },
			async admit({ size, partly }) {
				const { project } = await readView(services, projectFrame, actor, {
					project: metadata(request, 'project')
				});
				if (size > project.maxFileBytes)
					throw new Problem(
						'too-large',
						`The file is larger than the project allows (${sizeText(project.maxFileBytes)}). Nothing was kept.`,
						{ limit: project.maxFileBytes }
					);
				const most = services.config.waiting.member;
				await checkMember(services.database.db, most, personId, partly, size, new Date());
				return project.maxFileBytes;
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};

export const POST = answer;
export const HEAD = answer;
export const PATCH = answer;
export const DELETE = answer;
export const OPTIONS = answer;
