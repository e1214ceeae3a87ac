import { onMount } from 'svelte';
import { refreshAll } from '../platform/refresh';

/** Longest wait of a browser's timer, in milliseconds. */
const LONGEST_WAIT = 2 ** 31 - 1;

/**
 * Keeps a page of a pass as things are, for as long as it is shown: what changes is asked for again, and a pass that is
 * withdrawn or ends stops working in tabs that are open, too.
 * @param readAt the moment at which the page was read, by the server's clock, in milliseconds
 */
export function followPass(secret: string, readAt: number, endsAt: string): void {
	onMount(() => {
		const source = new EventSource(`/pass/${secret}/live?since=${readAt}`);
		source.onmessage = () => void refreshAll();
		// What happened while the line was broken is told by nobody.
		let before = false;
		source.onopen = () => {
			if (before) void refreshAll();
			before = true;
		};
		const left = new Date(endsAt).getTime() - Date.now() + 500;
		const timer = left < LONGEST_WAIT ? setTimeout(() => void refreshAll(), Math.max(0, left)) : 0;
		return () => {
			source.close();
			clearTimeout(timer);
		};
	});
}
