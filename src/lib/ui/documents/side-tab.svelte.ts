import type { Snippet } from 'svelte';

/** A view of a document beside it. */
export interface SideTab {
	value: string;
	word: string;
	panel: Snippet;
	class?: string;
}

/** Which of them is open: it stays so from document to document. Changed in the browser only. */
export const side = $state({ tab: 'remarks' });

/** The one to show where only some are there: the one that was chosen, else the first. */
export const shownOf = (tabs: readonly SideTab[]): string =>
	tabs.some((tab) => tab.value === side.tab) ? side.tab : tabs[0]!.value;
