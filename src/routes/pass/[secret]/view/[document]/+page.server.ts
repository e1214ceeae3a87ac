import { error } from '@sveltejs/kit';
import { pageView } from '../../../../page-data';
import { passGate, placeByPass } from '$lib/server/passes/views';
import { drawnMarks } from '$lib/server/passes/views-answering';
import { passView } from '$lib/server/releases/views-pass';
import { releaseNumber } from '$lib/core/releases';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	/** Before anything of the page is read: what happens from now on may be missing from it. */
	const readAt = Date.now();
	const { secret, document } = event.params;
	const gate = await pageView(event, passGate, { secret });
	const line = { readAt, endsAt: gate.endsAt };
	if (gate.leadsTo === 'release') {
		const view = await pageView(event, passView, { secret });
		const item = view.items.find((i) => i.documentId === document);
		if (!item) error(404, { message: 'The document is not in this release.', code: 'not-found' });
		const { marks } = await pageView(event, drawnMarks, { secret, document });
		return {
			item: { ...item, id: item.documentId, issued: true, takeable: true, made: false },
			asked: view.expects === 'verdicts' ? { item, by: view.holder, mayDraw: view.mayDraw, marks } : null,
			line,
			secret,
			back: `Release ${releaseNumber(view.release.number)}`,
			folder: null
		};
	}
	const folder = event.url.searchParams.get('folder') ?? undefined;
	const view = await pageView(event, placeByPass, { secret, folder });
	const item = view.documents.find((d) => d.id === document);
	if (!item) error(404, { message: 'The document is not within this pass.', code: 'not-found' });
	const name = view.way.at(-1)?.name ?? 'Back';
	const made = !view.mayDownload || view.stamped;
	return {
		item: { ...item, later: view.newer, since: null, made, before: null },
		asked: null,
		line,
		secret,
		back: name,
		folder: folder ?? null
	};
};
