import * as Y from 'yjs';
import { fragmentOf } from './shared';

/** Words that stood there before, came, or went, and by whom. */
export interface Run {
	text: string;
	change: 'same' | 'added' | 'removed';
	/** Id of the person who wrote the words, or took them away; null when that is not known. */
	by: string | null;
}

/** One paragraph, heading or caption. */
export interface Passage {
	/** Name of the block in the schema. */
	block: string;
	runs: Run[];
}

/** Words that one person took away: so many letters of one writer from a clock on. */
export interface Removal {
	client: number;
	clock: number;
	length: number;
	person: string;
}

/** Finds who removed a letter, by its writer and clock. */
class Removals {
	private readonly byClient = new Map<number, Removal[]>();
	constructor(all: readonly Removal[]) {
		for (const one of all) this.byClient.set(one.client, [...(this.byClient.get(one.client) ?? []), one]);
		for (const list of this.byClient.values()) list.sort((a, b) => a.clock - b.clock);
	}
	who(client: number, clock: number): string | null {
		const list = this.byClient.get(client) ?? [];
		let low = 0;
		let high = list.length - 1;
		while (low <= high) {
			const middle = (low + high) >> 1;
			const one = list[middle]!;
			if (clock < one.clock) high = middle - 1;
			else if (clock >= one.clock + one.length) low = middle + 1;
			else return one.person;
		}
		return null;
	}
}

function stands(at: Y.Snapshot, client: number, clock: number): boolean {
	return (at.sv.get(client) ?? 0) > clock && !Y.isDeleted(at.ds, Y.createID(client, clock));
}

/**
 * Who wrote what between two states of a shared text. Every letter of a shared document knows who brought it (YATA:
 * Nicolaescu et al., "Near Real-Time Peer-to-Peer Shared Editing on Extensible Data Types", 2016), and what was taken
 * away is kept, so nothing has to be guessed by comparing.
 * @param doc the shared document, with everything ever removed still in it
 * @param from the earlier state, or null for the beginning
 * @param writers person by writing client
 */
export function whoWrote(
	doc: Y.Doc,
	from: Y.Snapshot | null,
	to: Y.Snapshot,
	writers: ReadonlyMap<number, string>,
	removed: readonly Removal[]
): Passage[] {
	const removals = new Removals(removed);
	const passages: Passage[] = [];
	let open: Passage | null = null;

	const add = (text: string, change: Run['change'], by: string | null) => {
		if (!open) return;
		const last = open.runs.at(-1);
		if (last && last.change === change && last.by === by) last.text += text;
		else open.runs.push({ text, change, by });
	};
	const letters = (item: Y.Item, text: string) => {
		for (let i = 0; i < text.length; i++) {
			const { client, clock } = { client: item.id.client, clock: item.id.clock + i };
			const before = from !== null && stands(from, client, clock);
			const after = stands(to, client, clock);
			if (after) add(text[i]!, before ? 'same' : 'added', writers.get(client) ?? null);
			else if (before) add(text[i]!, 'removed', removals.who(client, clock));
		}
	};
	const walk = (type: Y.AbstractType<unknown>) => {
		for (let item = type._start; item; item = item.right) {
			const { content } = item;
			if (content instanceof Y.ContentString) letters(item, content.str);
			else if (content instanceof Y.ContentType) {
				const inner = content.type;
				if (inner instanceof Y.XmlText) walk(inner as never);
				else if (inner instanceof Y.XmlElement) element(inner as Y.XmlElement, item);
			}
		}
	};
	const element = (inner: Y.XmlElement, item: Y.Item) => {
		if (inner.nodeName === 'document_link') {
			letters(item, '▯');
			return;
		}
		const outer = open;
		open = { block: inner.nodeName, runs: [] };
		const mine = open;
		passages.push(mine);
		walk(inner as never);
		open = outer;
	};
	walk(fragmentOf(doc) as never);
	return passages.filter((p) => p.runs.some((r) => r.text.replace(/\u200b/g, '')));
}
