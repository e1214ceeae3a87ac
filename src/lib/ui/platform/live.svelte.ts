import { addressOf } from '../../client/cupboard';
import type { Notice } from '../../core/documents/rows';

type Listener = (notices: Notice[]) => void;

const listeners = new Set<Listener>();
let source: EventSource | null = null;
let waiting: Notice[] = [];
let timer: ReturnType<typeof setTimeout> | null = null;

/** Whether the line to the server is up; shown when it is not. */
export const line = $state({ up: true });

function flush(): void {
	timer = null;
	const notices = waiting;
	waiting = [];
	for (const listener of listeners) listener(notices);
}

/** Opens the line for a project; gives the function that closes it. */
export function watchProject(project: string): () => void {
	source = new EventSource(addressOf('events', { project }));
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

/** Whether notices tell of a change, and not only of previews that are ready. */
export function isChange(notices: Notice[]): boolean {
	return notices.length === 0 || notices.some((n) => n.kind !== 'preview.made');
}
