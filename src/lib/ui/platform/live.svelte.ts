import { addressOf } from '../../client/cupboard';
import { AREAS, type Area } from '../../core/events/event';
import type { Notice } from '../../core/documents/rows';
import { forgetAhead } from './refresh';

type Listener = (notices: Notice[]) => void;

const listeners = new Set<Listener>();
let source: EventSource | null = null;
let waiting: Notice[] = [];
let timer: ReturnType<typeof setTimeout> | null = null;

/** What came while somebody was on the way to a page, which may have been read before; null when nobody is. */
let onTheWay: Notice[] | null = null;

/** Whether the line to the server is up; shown when it is not. */
export const line = $state({ up: true });

function flush(): void {
	timer = null;
	const notices = waiting;
	waiting = [];
	onTheWay?.push(...notices);
	for (const listener of listeners) listener(notices);
}

/** Says that somebody sets out for another page. */
export function setOut(): void {
	onTheWay ??= [];
}

/** Says that they are there: what came on the way is told again, to those who show the page now. */
export function arrive(): void {
	const missed = onTheWay ?? [];
	onTheWay = null;
	if (missed.length) for (const listener of listeners) listener(missed);
}

/**
 * Opens the line for a project; gives the function that closes it.
 * @param asked the moment at which the page was read, by the server's clock: what happened since is told
 */
export function watchProject(project: string, asked: number): () => void {
	source = new EventSource(addressOf('events', { project, since: asked }));
	let cut = false;
	source.onopen = () => {
		line.up = true;
		// What happened while the line was down is not known: everything is asked for again.
		if (cut) for (const listener of listeners) listener([]);
		cut = false;
	};
	source.onerror = () => {
		cut = true;
		line.up = false;
	};
	source.onmessage = (event) => {
		forgetAhead();
		waiting.push(JSON.parse(event.data as string) as Notice);
		timer ??= setTimeout(flush, 80);
	};
	return () => {
		source?.close();
		source = null;
	};
}

/**
 * Calls back with what happened, a few at once; an empty list means "ask for everything again".
 * Gives the function that ends it, for use in an effect.
 */
export function onLive(listener: Listener): () => void {
	listeners.add(listener);
	return () => listeners.delete(listener);
}

/**
 * Calls back when something happened that concerns any of these parts of the application, or when it is not known what
 * did. Gives the function that ends it.
 * @param about narrows it, to what happened to one document for instance
 */
export function onTouched(
	areas: readonly Area[],
	then: () => unknown,
	about: (notice: Notice) => boolean = () => true
): () => void {
	return onLive((notices) => {
		if (notices.length === 0 || notices.some((n) => concerns(n, areas, about))) then();
	});
}

/** Whether a notice concerns any of these parts. What changed in one's access is not named: it concerns everything. */
function concerns(notice: Notice, areas: readonly Area[], about: (notice: Notice) => boolean): boolean {
	const unnamed = notice.place === null && notice.touches.length === AREAS.length;
	return notice.touches.some((area) => areas.includes(area)) && (unnamed || about(notice));
}

/** Everything that changes: all but what was only looked at, and previews that are ready. */
export const CHANGES = AREAS.filter((area) => area !== 'openings' && area !== 'previews');
