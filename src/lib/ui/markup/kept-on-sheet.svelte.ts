import type { Mark } from '../../core/markup/mark';
import type { KeptMarks, MarkChanges } from './kept.svelte';
import type { Markup } from './markup.svelte';

/** What is asked of marks that are shown or drawn on one sheet; another `key` begins anew. */
export interface OnOneSheet {
	key: string;
	/** Who draws here. */
	me: { id: string; name: string };
	/** Takes changes to where the marks are kept; null where they only show. */
	keep: ((changes: MarkChanges) => Promise<unknown>) | null;
}

/** Marks of a sheet that no room shares, from the moment at which there are some or somebody begins to draw. */
export class KeptOnSheet {
	line = $state.raw<KeptMarks | null>(null);
	markup = $state.raw<Markup | null>(null);

	/**
	 * For use while a component is set up.
	 * @param sheet what is shown now; null where there is nothing to show
	 * @param marks as they are kept by now
	 */
	constructor(sheet: () => OnOneSheet | null, marks: () => readonly Mark[]) {
		const key = $derived(sheet()?.key ?? null);
		$effect(() => {
			if (key === null) return;
			let closed = false;
			let open: Markup | null = null;
			void Promise.all([import('./markup.svelte'), import('./kept.svelte')]).then(([drawing, keeping]) => {
				const wanted = sheet();
				if (closed || !wanted) return;
				const line = new keeping.KeptMarks(wanted.keep);
				open = new drawing.Markup(line, wanted.me, '', wanted.keep ? 'write' : 'read');
				[this.line, this.markup] = [line, open];
			});
			return () => {
				closed = true;
				[this.line, this.markup] = [null, null];
				open?.close();
			};
		});
		$effect(() => this.line?.follow(marks()));
	}
}
