import { toast } from './toast';

/**
 * A part of a page that is fetched when it is first needed, as dialogs are that most visits do not open:
 * `{#if asking}{#await later(() => import('./SomeDialog.svelte'), () => (asking = false)) then SomeDialog}…`.
 * What cannot be fetched (a line that is down, a server that was renewed) is said, and `giveUp` lets it be asked for again.
 */
export async function later<Part>(load: () => Promise<{ default: Part }>, giveUp: () => void): Promise<Part> {
	try {
		return (await load()).default;
	} catch {
		toast.error('This could not be fetched. Check your connection, then try again or open the page anew.');
		giveUp();
		// Nothing is shown in its place, so it is never there.
		return new Promise(() => {});
	}
}
