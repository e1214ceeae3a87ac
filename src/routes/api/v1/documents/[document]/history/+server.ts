import type { RequestHandler } from '@sveltejs/kit';
import Papa from 'papaparse';
import { readView } from '$lib/server/platform/runner/run';
import { dispositionOf, problemResponse } from '$lib/server/platform/http/respond';
import { documentView } from '$lib/server/documents/views';

/** The whole history of a document as CSV. */
export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const view = await readView(locals.app.services, documentView, locals.actor, params);
		const rows = view.versions.map((v) => ({
			number: view.row.number,
			title: view.row.title,
			revision: v.label,
			issued: v.issued ? 'issued' : 'working save',
			at: v.at,
			by: v.by ?? '',
			note: v.note,
			release: v.release ?? '',
			verdict: v.verdict ?? '',
			file: v.fileName,
			bytes: v.size,
			sha256: v.hash
		}));
		// A cell that begins like a formula must not become one in a sheet.
		const text = '\ufeff' + Papa.unparse(rows, { escapeFormulae: true });
		return new Response(text, {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': dispositionOf('attachment', `${view.row.number}_history.csv`),
				'cache-control': 'no-store'
			}
		});
	} catch (error) {
		return problemResponse(error);
	}
};
