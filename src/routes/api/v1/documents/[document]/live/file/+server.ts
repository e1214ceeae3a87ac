import type { RequestHandler } from '@sveltejs/kit';
import { textFromJson } from '$lib/core/text/shared';
import { TEXT_FORMATS, type TextFormat } from '$lib/core/text/losses';
import { takeLiveText } from '$lib/server/acts/live-texts';
import { runAct } from '$lib/server/acts/run';
import { writeText } from '$lib/server/formats/text/write';
import { dispositionOf, problemResponse } from '$lib/server/http/respond';

/** A live text as it is now, as a file of the kind that `format` names. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { services } = locals.app;
	try {
		const format = url.searchParams.get('format') as TextFormat | null;
		const about = await runAct(services, takeLiveText, locals.actor, { ...params, format });
		const { bytes, mediaType } = await writeText(
			services,
			textFromJson(about.text),
			about,
			TEXT_FORMATS.find((f) => f === format)!,
			about.names
		);
		return new Response(bytes as Uint8Array<ArrayBuffer>, {
			headers: {
				'content-type': mediaType,
				'content-length': String(bytes.byteLength),
				'content-disposition': dispositionOf('attachment', `${about.number}.${format}`),
				'cache-control': 'private, no-store'
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
