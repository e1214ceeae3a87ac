import { MEDIA_TYPE } from '../../../core/files/media';
import type { List } from '../../../core/lists/list';
import { madeResponse } from '../../platform/http/respond';
import type { Services } from '../../platform/services';
import type { ListTask } from './list';

/** A list as a download. */
export async function listResponse(
	services: Services,
	format: ListTask['format'],
	list: List,
	name: string
): Promise<Response> {
	const bytes = await services.inspector.write({ task: 'list', format, list });
	return madeResponse(bytes, MEDIA_TYPE[format], `${name}.${format}`);
}
