import type { EventRow } from '../../core/documents/rows';

/** So many entries are asked for at a time. */
export const EVENTS_AT_ONCE = 80;

/**
 * The entries of a trail that are here, newest first: the newest, which come anew whenever something happens, and those
 * before them, which were asked for. What was asked for stays when something new comes, so that nobody loses their place;
 * a list that is narrowed otherwise begins anew.
 */
export class EventPages {
	events = $state.raw<readonly EventRow[]>([]);
	/** Whether the first entry of the list is here. */
	done = $state(false);
	private list = '';
	private loading = false;

	/**
	 * @param earlier gives the entries of the list before one of them; null where that fails
	 * @param begin the newest, when they are there already; see {@link take}
	 */
	constructor(
		private readonly earlier: (before: number) => Promise<readonly EventRow[] | null>,
		begin?: { newest: readonly EventRow[]; list: string }
	) {
		if (begin) this.take(begin.newest, begin.list);
	}

	/** Takes in the newest entries. @param list tells one narrowing from another */
	take(newest: readonly EventRow[], list: string): void {
		const last = newest.at(-1)?.seq;
		const known = this.events[0]?.seq;
		// Where more came than is asked for at a time, something would be missing in between.
		const joins = list === this.list && last !== undefined && known !== undefined && last <= known;
		this.list = list;
		if (joins) this.events = [...newest, ...this.events.filter(({ seq }) => seq < last)];
		else {
			this.events = newest;
			this.done = newest.length < EVENTS_AT_ONCE;
		}
	}

	/** Takes note that a place is back that entries tell was removed. */
	restored(place: string): void {
		this.events = this.events.map((event) =>
			event.place?.id === place ? { ...event, place: { ...event.place, removed: false } } : event
		);
	}

	/** Asks for entries before those that are here, where there are some; once at a time. */
	async more(): Promise<void> {
		const last = this.events.at(-1);
		if (this.loading || this.done || !last) return;
		const { list } = this;
		this.loading = true;
		const found = await this.earlier(last.seq);
		this.loading = false;
		if (!found || list !== this.list || this.events.at(-1) !== last) return;
		this.events = [...this.events, ...found];
		this.done = found.length < EVENTS_AT_ONCE;
	}
}
