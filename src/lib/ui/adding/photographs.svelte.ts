import { createStore, del, entries, set } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { tagsOf } from '../../core/files/settle';
import { cupboard } from '../../client/cupboard';
import { CallError } from '../../client/call';
import { sentenceOf } from '../platform/api';
import { queue } from './sending.svelte';

/** A photograph that waits in the browser until it is in its folder. */
interface Kept {
	id: string;
	/** Whose it is: nobody else at this browser sends it. */
	person: string;
	project: { id: string; code: string; keepPosition: boolean };
	place: string;
	placeName: string;
	title: string;
	tags: string;
	file: File;
	/** The upload, once the picture itself has arrived. */
	upload: string | null;
	/** It was asked for as a document: should no answer have come, it may be one. */
	asked?: boolean;
}
interface Waiting {
	kept: Kept;
	state: 'waiting' | 'going' | 'fault';
	fault: string;
}

/** Waits before trying a bad line again, in milliseconds. */
const AGAIN = 15_000;
/** Tries for a number that others take at the same time. */
const NUMBERS_TRIED = 5;

const store = () => createStore('cupboard-photographs', 'kept');

/**
 * Photographs on their way, one after the other. They are kept in the browser from the moment they are added until the
 * server has each as a document, so that a dead line, a closed page or a flat battery loses none.
 */
class Photographs {
	list = $state<Waiting[]>([]);
	/** Documents made since the page was opened. */
	done = $state<{ id: string; number: string; title: string }[]>([]);
	private person = '';
	private running = false;

	/** Takes up what was kept for a person, and goes on sending it. */
	async open(person: string): Promise<() => void> {
		this.person = person;
		const known = new Set(this.list.map((w) => w.kept.id));
		for (const [, kept] of await entries<string, Kept>(store()))
			if (kept.person === person && !known.has(kept.id)) this.list.push(waiting(kept));
		void this.run();
		const online = () => void this.run();
		addEventListener('online', online);
		const timer = setInterval(online, AGAIN);
		return () => {
			removeEventListener('online', online);
			clearInterval(timer);
		};
	}

	/** Keeps photographs and begins to send them. Raises what the browser says when it has no room. */
	async add(list: Omit<Kept, 'id' | 'person' | 'upload'>[]): Promise<void> {
		for (const one of list) {
			const kept: Kept = { ...one, id: nanoid(), person: this.person, upload: null };
			await set(kept.id, kept, store());
			this.list.push(waiting(kept));
		}
		void this.run();
	}

	async leaveOut(id: string): Promise<void> {
		await del(id, store());
		this.list = this.list.filter((w) => w.kept.id !== id);
	}

	retry(id: string): void {
		const one = this.list.find((w) => w.kept.id === id);
		if (one) Object.assign(one, { state: 'waiting', fault: '' });
		void this.run();
	}

	private async run(): Promise<void> {
		if (this.running) return;
		this.running = true;
		try {
			for (let one = this.next(); one; one = this.next()) if (!(await this.send(one))) break;
		} finally {
			this.running = false;
		}
	}
	private next(): Waiting | undefined {
		return navigator.onLine ? this.list.find((w) => w.state === 'waiting') : undefined;
	}

	/** Sends one; false when the line is down and the rest had better wait. */
	private async send(one: Waiting): Promise<boolean> {
		const { kept } = one;
		one.state = 'going';
		try {
			if (!kept.upload) {
				const upload = await queue.send(kept.project, kept.file).done;
				kept.upload = upload;
				await set(kept.id, $state.snapshot(kept), store());
			}
			const again = kept.asked === true;
			if (!again) {
				kept.asked = true;
				await set(kept.id, $state.snapshot(kept), store());
			}
			const { id, number } = await this.asDocument(kept, kept.upload, again);
			await del(kept.id, store());
			this.list = this.list.filter((w) => w.kept.id !== kept.id);
			this.done.unshift({ id, number, title: kept.title });
			return true;
		} catch (error) {
			const refused = error instanceof CallError && error.code !== 'busy';
			// An upload that nobody used for a day is gone; the picture itself is still here.
			if (refused && kept.upload) kept.upload = null;
			Object.assign(one, { state: refused ? 'fault' : 'waiting', fault: refused ? sentenceOf(error) : '' });
			return refused;
		}
	}

	/** Puts an arrived picture into its folder under the next free photograph number. */
	private async asDocument(
		kept: Kept,
		upload: string,
		again: boolean
	): Promise<{ id: string; number: string }> {
		for (let tried = 1; ; tried++) {
			const { proposals } = await cupboard.proposals({ place: kept.place, files: ['photograph.jpg'] });
			try {
				return await cupboard.addDocument({
					folder: kept.place,
					upload,
					number: proposals[0]!.number,
					title: kept.title,
					tags: tagsOf(kept.tags),
					again
				});
			} catch (error) {
				const taken = error instanceof CallError && error.code === 'conflict';
				if (!taken || tried === NUMBERS_TRIED) throw error;
			}
		}
	}
}

const waiting = (kept: Kept): Waiting => ({ kept, state: 'waiting', fault: '' });

export const photographs = new Photographs();
