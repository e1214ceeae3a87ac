import type { RemarkRow } from '../../core/remarks/remarks';
import type { Services } from '../platform/services';
import { MEDIA_TYPE } from '../../core/files/media';
import { dispositionOf } from '../platform/http/respond';

/** The comment sheet of a document as a download. */
export async function commentSheetResponse(
	services: Services,
	format: 'xlsx' | 'pdf',
	about: { number: string; title: string; label: string; project: string; timeZone: string },
	remarks: RemarkRow[]
): Promise<Response> {
	const bytes = await services.inspector.write({ task: 'comment-sheet', format, about, remarks });
	return new Response(bytes as Uint8Array<ArrayBuffer>, {
		headers: {
			'content-type': MEDIA_TYPE[format],
			'content-length': String(bytes.byteLength),
			'content-disposition': dispositionOf('attachment', `${about.number}_remarks.${format}`),
			'cache-control': 'private, no-store'
		}
	});
}
