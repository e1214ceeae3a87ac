import { tinykeys } from 'tinykeys';
import { isHeld } from './held';

/** One key of a screen: what it does, in words for the list that `?` opens. */
export interface Shortcut {
	key: string;
	says: string;
	run: () => void;
}

/** The keys of the screen that is open. */
export const screen = $state<{ shortcuts: Shortcut[] }>({ shortcuts: [] });

function typing(event: KeyboardEvent): boolean {
	const target = event.target as HTMLElement | null;
	return !!target?.closest(
		'input:not([type=checkbox]), textarea, [contenteditable], [role=combobox], [role=listbox], [role=dialog], [role=menu]'
	);
}

/** What a sign is written with differs from keyboard to keyboard; a letter is one only by itself. */
const pressed = (key: string) => (/^\w$/.test(key) ? key : `[Shift]+[Control]+[Alt]+[AltGraph]+${key}`);

/** Does something at a key, wherever the focus is, but while somebody types. Gives what ends it. */
export function onKeys(keys: Record<string, () => void>): () => void {
	const bindings = Object.fromEntries(
		Object.entries(keys).map(([key, run]) => [
			pressed(key),
			(event: KeyboardEvent) => {
				event.preventDefault();
				run();
			}
		])
	);
	// The library would also pass over boxes that are ticked, which is where the focus is after ticking rows.
	const ignore = (event: KeyboardEvent) =>
		event.repeat || event.isComposing || typing(event) || isHeld(event);
	return tinykeys(window, bindings, { ignore });
}

/** Sets the keys of a screen; they never fire while somebody types. For use in an effect. */
export function useShortcuts(list: Shortcut[]): () => void {
	screen.shortcuts = list;
	const stop = onKeys(Object.fromEntries(list.map(({ key, run }) => [key, run])));
	return () => {
		stop();
		if (screen.shortcuts === list) screen.shortcuts = [];
	};
}
