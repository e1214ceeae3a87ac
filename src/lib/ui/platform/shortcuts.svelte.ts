import { tinykeys } from 'tinykeys';

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

/** Sets the keys of a screen; they never fire while somebody types. For use in an effect. */
export function useShortcuts(list: Shortcut[]): () => void {
	screen.shortcuts = list;
	const bindings = Object.fromEntries(
		list.map((s) => [
			s.key,
			(event: KeyboardEvent) => {
				if (typing(event) || event.ctrlKey || event.metaKey || event.altKey) return;
				event.preventDefault();
				s.run();
			}
		])
	);
	const stop = tinykeys(window, bindings);
	return () => {
		stop();
		if (screen.shortcuts === list) screen.shortcuts = [];
	};
}
