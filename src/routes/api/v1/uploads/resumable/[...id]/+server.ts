import { json, type RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/problem';
import { readView } from '$lib/server/acts/run';
import { problemResponse } from '$lib/server/http/respond';
import { ID_LENGTH } from '$lib/server/ids';
import { resumableOf } from '$lib/server/resumable';
import { checkMember } from '$lib/server/waiting';
import { projectFrame } from '$lib/server/views/places';

const UPLOAD_ID = new RegExp(`^[a-z0-9]{${ID_LENGTH}}$`);
const NOT_FOUND = () => new Problem('not-found', 'There is no such upload.');

/** The value of a key in the protocol's metadata header: pairs of a key and its value in Base64. */
function metadata(request: Request, key: string): string {
	for (const pair of (request.headers.get('upload-metadata') ?? '').split(',')) {
		const [name, value] = pair.trim().split(' ');
		if (name === key) return Buffer.from(value ?? '', 'base64').toString('utf8');
	}
	return '';
}

/**
 * Files that may break off and go on later, by the tus protocol. An upload belongs to whoever began it; nobody can
 * read one back here, and one that arrived whole is answered from what was noted of it.
 */
const answer: RequestHandler = async ({ locals, request, params }) => {
	const { services } = locals.app;
	const resumable = resumableOf(services);
	try {
		if (!locals.actor) throw new Problem('needs-sign-in', 'Sign in first.');
		const personId = locals.actor.person.id;
		const id = params.id ?? '';
		if (request.method === 'POST' && !id) {
			const { project } = await readView(services, projectFrame, locals.actor, {
				project: metadata(request, 'project')
			});
			// How large it will be is said first: without it no limit could be held.
			const declared = request.headers.get('upload-length');
			const size = Number(declared);
			if (
				declared === null ||
				request.headers.has('upload-defer-length') ||
				!Number.isSafeInteger(size) ||
				size < 0
			)
				throw new Problem('invalid', 'Say how large the file is before sending it.');
			if (size > project.maxFileBytes)
				throw new Problem(
					'too-large',
					`The file is larger than the project allows (${Math.round(project.maxFileBytes / 1e6)} MB). Nothing was kept.`,
					{ limit: project.maxFileBytes }
				);
			const most = services.config.waiting.member;
			const arriving = await resumable.arriving(personId);
			await checkMember(services.database.db, most, personId, arriving, size, new Date());
			return await resumable.answer(request, '', { personId, limit: project.maxFileBytes });
		}
		if (!UPLOAD_ID.test(id)) throw NOT_FOUND();
		const whole = await resumable.whole(id);
		if (whole) {
			if (whole.personId !== personId) throw NOT_FOUND();
			// Only asking how far it came makes sense now, or asking for its receipt once more.
			const headers = {
				'tus-resumable': '1.0.0',
				'upload-offset': String(whole.size),
				'upload-length': String(whole.size),
				'cache-control': 'no-store'
			};
			return request.method === 'HEAD' ? new Response(null, { headers }) : json(whole, { headers });
		}
		if ((await resumable.sender(id)) !== personId) throw NOT_FOUND();
		if (request.method === 'POST') return json(await resumable.finish(id));
		return await resumable.answer(request, id, { personId, limit: Number.MAX_SAFE_INTEGER });
	} catch (error) {
		return problemResponse(error);
	}
};

export const POST = answer;
export const HEAD = answer;
export const PATCH = answer;
export const DELETE = answer;
export const OPTIONS = answer;
