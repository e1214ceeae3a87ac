import { untrack } from 'svelte';
import { HocuspocusProvider } from '@hocuspocus/provider';
import { IndexeddbPersistence } from 'y-indexeddb';
import type { Awareness } from 'y-protocols/awareness';
import * as Y from 'yjs';
import type { Present } from '../../core/live/live';
import { KEPT } from './kept';
import { dropRefused, keepRefused, refusedOf, type Refused } from './refused';

/** The server refused what this browser sent; what it holds is not what the others have. */
const REFUSED = 4409;
const TOO_MUCH = 4429;

/**
 * The line to a room: the shared document, who else is in it, and how it stands. Changes are kept in the browser until
 * the server has them, so a lost connection or a closed page loses none.
 */
export class LiveLine {
	/** `waiting`: the line is down, and one goes on working; `refused`: the server did not take a change. */
	state = $state<'opening' | 'live' | 'waiting' | 'refused'>('opening');
	/** Changes that the server has not confirmed yet. */
	unsent = $state(0);
	people = $state.raw<Present[]>([]);
	/** What the server did not take, now or before, until its author has dealt with it. */
	refused = $state.raw<Refused | null>(null);

	readonly doc = new Y.Doc();
	private readonly provider: HocuspocusProvider;
	private readonly kept: IndexeddbPersistence;

	/** @param room name of the room @param me who works here; the server holds everybody to their own name */
	constructor(
		readonly room: string,
		readonly me: Present
	) {
		this.kept = new IndexeddbPersistence(`${KEPT}/${me.id}/${room}`, this.doc);
		void refusedOf(this.key).then((refused) => (this.refused ??= refused ?? null));
		const { protocol, host } = location;
		this.provider = new HocuspocusProvider({
			url: `${protocol === 'https:' ? 'wss' : 'ws'}://${host}/live/rooms/${room}`,
			name: room,
			document: this.doc,
			token: 'session',
			onSynced: () => (this.state = 'live'),
			onUnsyncedChanges: ({ number }) => untrack(() => (this.unsent = number)),
			onStatus: ({ status }) => {
				if (status !== 'connected' && this.state === 'live') this.state = 'waiting';
			},
			onClose: ({ event }) => {
				if (event.code !== REFUSED && event.code !== TOO_MUCH) return;
				this.state = 'refused';
				this.provider.disconnect();
				// What was refused would be refused again and again; it is kept apart.
				void keepRefused(this.key, this.doc, event.reason).then(async (all) => {
					await this.kept.clearData();
					this.refused = all;
				});
			},
			// An editor that is taken off the page while it has the focus tells so in the middle of the page's change: what
			// follows from it belongs to nobody's rendering.
			onAwarenessChange: ({ states }) => untrack(() => (this.people = present(states as never)))
		});
		this.awareness.setLocalStateField('user', me);
	}

	private get key(): string {
		return `${this.me.id}/${this.room}`;
	}
	/** What was refused is dealt with. */
	async dropRefused(): Promise<void> {
		await dropRefused(this.key);
		this.refused = null;
	}

	get awareness(): Awareness {
		return this.provider.awareness!;
	}

	/** Resolves when the document is there: from the server, or from what this browser kept. */
	ready(): Promise<void> {
		return new Promise((resolve) => {
			const done = () => resolve();
			this.provider.on('synced', done);
			void this.kept.whenSynced.then(() => this.doc.store.clients.size > 0 && done());
		});
	}

	close(): void {
		this.provider.destroy();
		void this.kept.destroy();
		this.doc.destroy();
	}
}

/** Everybody who is there, once, by name. */
function present(states: { user?: Present }[]): Present[] {
	const found = new Map<string, Present>();
	for (const { user } of states) if (user) found.set(user.id, user);
	return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}
