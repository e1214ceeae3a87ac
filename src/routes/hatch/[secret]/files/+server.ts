import { json, type RequestHandler } from '@sveltejs/kit';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { splitExtension } from '$lib/core/names';
import { Problem } from '$lib/core/problem';
import { readView } from '$lib/server/acts/run';
import { receive } from '$lib/server/content';
import { heardOut } from '$lib/server/http/body';
import { problemResponse } from '$lib/server/http/respond';
import { hatchView } from '$lib/server/views/passes';

/** A hatch is open to whoever holds its link, so how fast files come in is bounded. */
const perHatch = new RateLimiterMemory({ points: 1_000, duration: 600 });

/** Takes in one file through a hatch; nothing is on a shelf until it is put in, checked and sorted. */
export const POST: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const hatch = await readView(services, hatchView, null, params);
		await perHatch.consume(hatch.id).catch(() => {
			throw new Problem('too-many', 'Too many files at once. Wait ten minutes, then go on.');
		});
		const name = url.searchParams.get('name') ?? '';
		const [, ending] = splitExtension(name);
		if (hatch.endings.length && !hatch.endings.includes(ending))
			throw new Problem(
				'invalid',
				`This hatch takes ${hatch.endings.map((e) => `.${e}`).join(', ')} only. The file was not kept.`
			);
		if (!request.body) throw new Problem('invalid', 'The file is empty. It was not kept.');
		return json(
			await receive(services, { hatchId: hatch.id }, name, heardOut(request.body), hatch.maxFileBytes)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
