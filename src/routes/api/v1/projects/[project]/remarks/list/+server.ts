import type { RequestHandler } from '@sveltejs/kit';
import Papa from 'papaparse';
import { plainRemark } from '$lib/core/remarks/remarks';
import { readView } from '$lib/server/platform/runner/run';
import { dispositionOf, problemResponse } from '$lib/server/platform/http/respond';
import { remarksWithin } from '$lib/server/remarks/views';

/** Remarks of a project or folder as CSV, narrowed as the list is. */
export const GET: RequestHandler = async ({ locals, params, url }) => {
	try {
		const asked = { ...Object.fromEntries(url.searchParams), ...params };
		const { remarks } = await readView(locals.app.services, remarksWithin, locals.actor, asked);
		const rows = remarks.map((r) => ({
			document: r.documentNumber,
			title: r.documentTitle,
			remark: r.number,
			revision: r.label,
			from: r.from,
			by: r.by,
			at: r.at,
			about: r.quote,
			text: plainRemark(r.text),
			answers: r.answers.map((a) => `${a.by}: ${plainRemark(a.text)}`).join('\n'),
			settles: r.assigned?.name ?? '',
			due: r.due ?? '',
			settled: r.settled ? `${r.settled.by}, ${r.settled.at}` : '',
			how: r.settled?.note ?? ''
		}));
		// A cell that begins like a formula must not become one in a sheet.
		return new Response('\ufeff' + Papa.unparse(rows, { escapeFormulae: true }), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': dispositionOf('attachment', 'remarks.csv'),
				'cache-control': 'no-store'
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
