/**
 * Whether a key was pressed in something that uses it itself: a field, a choice that is open, a menu. Keys of a page
 * leave it alone.
 */
export const inField = ({ target }: Event): boolean =>
	target instanceof Element &&
	target.closest('input, textarea, [contenteditable], [role=combobox], [role=listbox], [role=menu]') !== null;
