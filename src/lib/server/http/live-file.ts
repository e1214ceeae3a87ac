import { copyOf } from '../../core/shared-copy';
import { takeLive } from '../acts/live';
import { runAct } from '../acts/run';
import type { Actor } from '../actor';
import type { Ending } from '../formats/media';
import { KINDS } from '../rooms/kinds';
import type { Services } from '../services';
import { dispositionOf } from './respond';

/** A live document as it is now, as a download of the kind that `format` names. Raises what {@link takeLive} raises. */
export async function liveFileResponse(
	services: Services,
	actor: Actor,
	document: string,
	format: string
): Promise<Response> {
	const { names, kind, room, ...about } = await runAct(services, takeLive, actor, { document, format });
	const doc = await services.rooms.read(room, (live) => copyOf(live));
	const { bytes, mediaType } = await KINDS[kind].write(services, doc, about, format as Ending, names);
	return new Response(bytes as Uint8Array<ArrayBuffer>, {
		headers: {
			'content-type': mediaType,
			'content-length': String(bytes.byteLength),
			'content-disposition': dispositionOf('attachment', `${about.number}.${format}`),
			'cache-control': 'private, no-store'
		}
	});
}
