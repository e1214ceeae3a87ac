import type { RequestHandler } from '@sveltejs/kit';
import { splitExtension } from '$lib/core/files/names';
import { Problem } from '$lib/core/acts/problem';
import { sizeText } from '$lib/core/files/sizes';
import { readView } from '$lib/server/platform/runner/run';
import { problemResponse } from '$lib/server/platform/http/respond';
import { speakResumable } from '$lib/server/content/resumable-http';
import { countTry } from '$lib/server/platform/auth/tries';
import { hatchView } from '$lib/server/passes/views';
import { checkHatch } from '$lib/server/content/waiting';

/**
 * Takes in files through a hatch, which may break off and go on later; nothing is on a shelf until it is put in,
 * checked and sorted.
 */
const answer: RequestHandler = async ({ locals, params, request }) => {
	const { services } = locals.app;
	try {
		const hatch = await readView(services, hatchView, null, { secret: params.secret });
		return await speakResumable(services, request, params.id ?? '', {
			base: `/hatch/${encodeURIComponent(params.secret!)}/files`,
			sender: { hatchId: hatch.id },
			async admit({ name, size, partly }) {
				await countTry(services.database, 'hatch', hatch.id);
				const [, ending] = splitExtension(name);
				if (hatch.endings.length && !hatch.endings.includes(ending))
					throw new Problem(
						'invalid',
						`This hatch takes ${hatch.endings.map((e) => `.${e}`).join(', ')} only. The file was not kept.`
					);
				if (size > hatch.maxFileBytes)
					throw new Problem(
						'too-large',
						`The file is larger than this hatch takes, ${sizeText(hatch.maxFileBytes)} at most. Nothing was kept.`
					);
				const { db } = services.database;
				await checkHatch(db, services.config.waiting, hatch.id, partly + size, new Date());
				return hatch.maxFileBytes;
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
