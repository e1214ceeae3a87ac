/** One thing in a menu: done when it is chosen, or ticked while the menu stays open. */
export interface MenuEntry {
	word: string;
	/** What stands before it in the type of numbers: a code. */
	code?: string;
	act: () => void;
	/** Whether it is ticked; entries that have this are ticked and not done. */
	ticked?: boolean;
	disabled?: boolean;
	/** Why it cannot be done, in a sentence; it then stands there and cannot be chosen. */
	why?: string;
}

type Perhaps<T> = T | false | null | undefined | '' | 0;

/** Entries that belong together; what is false is left out, so that a menu is written as what it may hold. */
export type MenuGroup = Perhaps<Perhaps<MenuEntry>[]>;

/** The groups that hold something, with what they hold. */
export const filled = (groups: readonly MenuGroup[]): MenuEntry[][] =>
	groups
		.map((group) => (group || []).filter((entry): entry is MenuEntry => Boolean(entry)))
		.filter((group) => group.length > 0);
