import { copyOf } from '../../core/live/shared-copy';
import { takeLive } from './acts';
import { runAct } from '../platform/runner/run';
import type { Actor } from '../platform/runner/actor';
import type { Ending } from '../../core/files/media';
import { KINDS } from './rooms/kinds';
import type { Services } from '../platform/services';
import { madeResponse } from '../platform/http/respond';

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
	return madeResponse(bytes, mediaType, `${about.number}.${format}`);
}
