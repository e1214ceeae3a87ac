import { json, type RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { sizeText } from '$lib/core/files/sizes';
import { readView } from '$lib/server/platform/runner/run';
import { heardOut } from '$lib/server/platform/http/body';
import { receive } from '$lib/server/content/content';
import { problemResponse } from '$lib/server/platform/http/respond';
import { resumableOf } from '$lib/server/content/resumable';
import { checkMember } from '$lib/server/content/waiting';
import { projectFrame } from '$lib/server/places/views';

/** Takes in the bytes of one file as a stream; memory stays flat whatever the size. */
export const POST: RequestHandler = async ({ locals, request, url }) => {
	const { services } = locals.app;
	try {
		const { project, me } = await readView(services, projectFrame, locals.actor, {
			project: url.searchParams.get('project') ?? ''
		});
		const declared = Number(request.headers.get('content-length') ?? 0);
		if (declared > project.maxFileBytes) {
			throw new Problem(
				'too-large',
				`The file is larger than the project allows (${sizeText(project.maxFileBytes)}). Nothing was kept.`,
				{ limit: project.maxFileBytes }
			);
		}
		const most = services.config.waiting.member;
		const arriving = await resumableOf(services).arriving({ personId: me.id });
		await checkMember(services.database.db, most, me.id, arriving, declared, new Date());
		if (!request.body) throw new Problem('invalid', 'The file is empty. It was not kept.');
		return json(
			await receive(
				services,
				{ personId: me.id },
				url.searchParams.get('name') ?? '',
				heardOut(request.body),
				project.maxFileBytes
			)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
