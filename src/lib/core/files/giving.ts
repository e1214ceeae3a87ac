/** What a request asks of a file, as far as it says. */
export interface Asking {
	/** It asks for a download outright. */
	download: boolean;
	/** What the browser wants it for (Fetch Metadata); null from programs that are no browser. */
	destination: string | null;
	/** The browser only guesses that it may be wanted. */
	ahead: boolean;
	/** The browser can show this kind of file by itself, and does so in a sandbox. */
	shows: boolean;
}

/**
 * What happens with a file that is asked for.
 * - `show`: its bytes are shown on screen, and noted as an opening
 * - `part`: they are shown as a part of a page, whose opening was noted with the page
 * - `give`: they leave; noted as a download
 * - `made`: they stay, and something made from them is to be shown instead
 * - `no`: nothing, since nobody chose it
 */
export type WayOut = 'show' | 'part' | 'give' | 'made' | 'no';

/** Wanted by a page's own markup, and not by a person: a picture in a text must not download anything in their name. */
const PARTS = new Set([
	'image',
	'audio',
	'video',
	'track',
	'style',
	'script',
	'font',
	'object',
	'embed',
	'manifest'
]);

/**
 * Decides how content leaves, in every way there is: versions, side versions, arrivals, passes, releases.
 * @param mayGive whether the reader holds Download there, or the pass is for taking
 */
export function wayOut(asking: Asking, mayGive: boolean): WayOut {
	const { destination, download, shows } = asking;
	if (asking.ahead) return 'no';
	if (destination !== null && PARTS.has(destination)) {
		if (download) return 'no';
		return mayGive ? 'part' : 'made';
	}
	if (!mayGive) return 'made';
	if (download || destination === null) return 'give';
	// The application's own viewers fetch what they show; whoever goes to a file that no browser shows, takes it.
	return destination === 'empty' || shows ? 'show' : 'give';
}
