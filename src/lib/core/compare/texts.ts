import { diffArrays, diffWordsWithSpace } from 'diff';

/** A run of words that both texts have, or only one of them. */
interface Run {
	kind: 'same' | 'removed' | 'added';
	text: string;
}

/** One paragraph, heading or line of a comparison, in the order of reading. */
export interface ComparedBlock {
	kind: 'same' | 'removed' | 'added' | 'changed' | 'moved-from' | 'moved-to';
	runs: Run[];
	/** Number of the change in reading order, from 1; null where nothing changed. */
	change: number | null;
}

/** Paragraphs at least this alike are one paragraph that was changed (Dice coefficient of their words). */
const ALIKE = 0.45;
/** Paragraphs shorter than this are never said to have moved: too many are equal by chance. */
const LEAST_MOVED = 12;
/** Looking for the counterpart of a paragraph goes this far only. */
const WINDOW = 60;

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();

function words(text: string): Map<string, number> {
	const counts = new Map<string, number>();
	for (const word of plain(text).toLowerCase().split(' ')) counts.set(word, (counts.get(word) ?? 0) + 1);
	return counts;
}

/** How alike two texts are, 0 to 1 (Dice 1945, over words). */
function likeness(a: Map<string, number>, b: Map<string, number>): number {
	let both = 0;
	let all = 0;
	for (const [word, n] of a) {
		both += Math.min(n, b.get(word) ?? 0);
		all += n;
	}
	for (const n of b.values()) all += n;
	return all ? (2 * both) / all : 0;
}

interface Gap {
	removed: string[];
	added: string[];
}

/**
 * Compares two texts given as their paragraphs. Words that were added or removed stand in the flow of the text;
 * a paragraph that only stands elsewhere now is said to have moved.
 */
export function compareTexts(before: string[], after: string[]): ComparedBlock[] {
	const blocks: ComparedBlock[] = [];
	let gap: Gap = { removed: [], added: [] };
	const close = () => {
		blocks.push(...pairGap(gap));
		gap = { removed: [], added: [] };
	};
	for (const part of diffArrays(before, after, { comparator: (a, b) => plain(a) === plain(b) })) {
		if (part.removed) gap.removed.push(...part.value);
		else if (part.added) gap.added.push(...part.value);
		else {
			close();
			for (const text of part.value)
				blocks.push({ kind: 'same', runs: [{ kind: 'same', text }], change: null });
		}
	}
	close();
	return numbered(findMoves(blocks));
}

/** Pairs what was removed with what was added in its place, in order, and compares the words of each pair. */
function pairGap({ removed, added }: Gap): ComparedBlock[] {
	const out: ComparedBlock[] = [];
	const counts = added.map(words);
	let next = 0;
	for (const text of removed) {
		const own = words(text);
		let best = -1;
		let most = ALIKE;
		for (let i = next; i < Math.min(added.length, next + WINDOW); i++) {
			const alike = likeness(own, counts[i]!);
			if (alike > most) [best, most] = [i, alike];
		}
		if (best < 0) {
			out.push({ kind: 'removed', runs: [{ kind: 'removed', text }], change: null });
			continue;
		}
		for (; next < best; next++)
			out.push({ kind: 'added', runs: [{ kind: 'added', text: added[next]! }], change: null });
		out.push({ kind: 'changed', runs: runsOf(text, added[best]!), change: null });
		next = best + 1;
	}
	for (; next < added.length; next++)
		out.push({ kind: 'added', runs: [{ kind: 'added', text: added[next]! }], change: null });
	return out;
}

function runsOf(before: string, after: string): Run[] {
	return diffWordsWithSpace(before, after).map((part) => ({
		kind: part.added ? 'added' : part.removed ? 'removed' : 'same',
		text: part.value
	}));
}

/** What was removed in one place and added word for word in another has moved. */
function findMoves(blocks: ComparedBlock[]): ComparedBlock[] {
	const gone = new Map<string, ComparedBlock[]>();
	for (const block of blocks) {
		const key = plain(block.runs[0]!.text);
		if (block.kind === 'removed' && key.length >= LEAST_MOVED)
			gone.set(key, [...(gone.get(key) ?? []), block]);
	}
	for (const block of blocks) {
		if (block.kind !== 'added') continue;
		const from = gone.get(plain(block.runs[0]!.text))?.shift();
		if (!from) continue;
		from.kind = 'moved-from';
		block.kind = 'moved-to';
	}
	return blocks;
}

function numbered(blocks: ComparedBlock[]): ComparedBlock[] {
	let n = 0;
	for (const block of blocks) if (block.kind !== 'same' && block.kind !== 'moved-from') block.change = ++n;
	return blocks;
}
