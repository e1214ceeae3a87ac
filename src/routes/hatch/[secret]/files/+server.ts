import { json, type RequestHandler } from '@sveltejs/kit';
import { splitExtension } from '$lib/core/names';
import { Problem } from '$lib/core/problem';
import { sizeText } from '$lib/core/sizes';
import { readView } from '$lib/server/acts/run';
import { receive } from '$lib/server/content';
import { heardOut } from '$lib/server/http/body';
import { problemResponse } from '$lib/server/http/respond';
import { countTry } from '$lib/server/tries';
import { hatchView } from '$lib/server/views/passes';
import { checkHatch } from '$lib/server/waiting';

/** Takes in one file through a hatch; nothing is on a shelf until it is put in, checked and sorted. */
export const POST: RequestHandler = async ({ locals, params, request, url }) => {
	const { services } = locals.app;
	try {
		const hatch = await readView(services, hatchView, null, params);
		await countTry(services.database, 'hatch', hatch.id);
		const name = url.searchParams.get('name') ?? '';
		const [, ending] = splitExtension(name);
		if (hatch.endings.length && !hatch.endings.includes(ending))
			throw new Problem(
				'invalid',
				`This hatch takes ${hatch.endings.map((e) => `.${e}`).join(', ')} only. The file was not kept.`
			);
		const declared = Number(request.headers.get('content-length') ?? 0);
		if (declared > hatch.maxFileBytes)
			throw new Problem(
				'too-large',
				`The file is larger than this hatch takes, ${sizeText(hatch.maxFileBytes)} at most. Nothing was kept.`
			);
		await checkHatch(services.database.db, services.config.waiting, hatch.id, declared, new Date());
		if (!request.body) throw new Problem('invalid', 'The file is empty. It was not kept.');
		return json(
			await receive(services, { hatchId: hatch.id }, name, heardOut(request.body), hatch.maxFileBytes)
		);
	} catch (error) {
		return problemResponse(error);
	}
};
