import { outlasting } from '$lib/ui/platform/outlast';

/** Before the first page comes to life. */
export function init(): void {
	window.fetch = outlasting(window.fetch.bind(window), () => location.pathname);
}
