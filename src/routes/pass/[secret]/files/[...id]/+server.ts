import type { RequestHandler } from '@sveltejs/kit';
import { Problem } from '$lib/core/acts/problem';
import { sizeText } from '$lib/core/files/sizes';
import { speakResumable } from '$lib/server/content/resumable-http';
import { countTry } from '$lib/server/platform/auth/tries';
import { problemResponse } from '$lib/server/platform/http/respond';
import { readView } from '$lib/server/platform/runner/run';
import { answerRoom } from '$lib/server/passes/views-answering';

/** Takes in marked-up files of who answers a release, which may break off and go on later; an act puts them to a verdict. */
const answer: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const input = { secret: params.secret! };
		const room = await readView(services, answerRoom, locals.actor, input, { proofs: locals.proofs });
		return await speakResumable(services, request, params.id ?? '', {
			base: `/pass/${encodeURIComponent(input.secret)}/files`,
			sender: { passId: room.pass },
			async admit({ size, partly }) {
				await countTry(services.database, 'hatch', room.pass);
				if (partly + size > room.left)
					throw new Problem(
						'too-large',
						`Files with marks take ${sizeText(room.most)} for one release, and ${sizeText(room.left)} are left. Nothing was kept.`
					);
				return size;
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
