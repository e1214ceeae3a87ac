/** One thing in a menu: done when it is chosen, or ticked while the menu stays open. */
export interface MenuEntry {
	word: string;
	/** What stands before it in the type of numbers: a code. */
	code?: string;
	act: () => void;
	/** Whether it is ticked; entries that have this are ticked and not done. */
	ticked?: boolean;
	disabled?: boolean;
	/** The key that does the same on its screen. */
	key?: string;
	/** Only where the screen is too narrow for the button that does the same. */
	narrow?: boolean;
	/** It takes something away. */
	dangerous?: boolean;
	/** What it means, quietly below it. */
	hint?: string;
	/** Why it cannot be done, in a sentence; it then stands there and cannot be chosen. */
	why?: string;
}

type Perhaps<T> = T | false | null | undefined | '' | 0;

/**
 * Entries that belong together, under a head where they have one; what is false is left out, so that a menu is written
 * as what it may hold.
 */
export type MenuGroup = Perhaps<Perhaps<MenuEntry>[] | { head: string; entries: Perhaps<MenuEntry>[] }>;

/** The groups that hold something, with what they hold. */
export const filled = (groups: readonly MenuGroup[]): { head: string; entries: MenuEntry[] }[] =>
	groups
		.map((group) => {
			const { head, entries } = Array.isArray(group)
				? { head: '', entries: group }
				: group || { head: '', entries: [] };
			return { head, entries: entries.filter((entry): entry is MenuEntry => Boolean(entry)) };
		})
		.filter(({ entries }) => entries.length > 0);
