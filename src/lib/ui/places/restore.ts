import { toast } from '../kit/toast';
import { cupboard, type AnswerOf } from '../../client/cupboard';
import { attempt } from '../platform/api';
import { plural } from '../platform/words';

/** Restores a removed place and says what came back, and under which names. */
export async function restorePlace(place: string, then: () => unknown): Promise<void> {
	const back = await attempt(() => cupboard.restorePlace({ place }));
	if (!back) return;
	sayRestored(back);
	await then();
}

/** Says what came back, and under which names. */
export function sayRestored(back: AnswerOf<'restorePlace'>): void {
	const parts = [`Restored ${plural(back.documents, 'document')}.`];
	if (back.folders.length) parts.push(`Its folder came back too: ${back.folders.join(' / ')}.`);
	if (back.renamed.length) parts.push(`Taken meanwhile, so renamed: ${back.renamed.join(', ')}.`);
	toast.success(parts.join(' '));
}
