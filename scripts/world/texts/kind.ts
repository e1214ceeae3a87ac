import { Random } from '../random';

/**
 * What a text says where each of its kind says something else: `{showers|dry}` is one of these, `{3..9}` a number from the
 * first to the last, with as many decimals as they have.
 */
type Said = string;
/** A sentence, or some of many, in their order. */
type Line = Said | { some: number; of: Said[] };
/** A clause with its head, or some of many. */
export type Part = [head: string, ...body: Line[]] | { some: number; of: [head: string, ...body: Line[]][] };

/** What texts of a kind say: by which titles they go, their clauses, and what later versions add to them. */
export interface TextKind {
	title: RegExp;
	clauses: Part[];
	added: Said[];
	/** The head of the clause that they are added to; the last where none is named. */
	addedTo?: string;
}

export interface Clause {
	head: string;
	body: string[];
}

/** So many of a list, in their order, and others for each seed. */
function some<T>(of: readonly T[], many: number, seed: string): T[] {
	const r = new Random(seed);
	const left = of.map((one, at) => ({ one, at }));
	const chosen = Array.from({ length: Math.min(many, of.length) }, () => {
		const [taken] = left.splice(r.int(0, left.length - 1), 1);
		return taken!;
	});
	return chosen.sort((a, b) => a.at - b.at).map(({ one }) => one);
}

/** Says what is to be said, the same for the same seed. */
export function filled(said: Said, seed: string): string {
	const r = new Random(seed);
	const choose = (choice: string) => {
		const range = /^(-?[\d.]+?)\.\.(-?[\d.]+)$/.exec(choice);
		if (!range) return r.pick(choice.split('|'));
		const decimals = range[1]!.split('.')[1]?.length ?? 0;
		const unit = 10 ** decimals;
		const value = r.int(Math.round(Number(range[1]) * unit), Math.round(Number(range[2]) * unit)) / unit;
		return value.toFixed(decimals);
	};
	// A choice can stand within a choice: the inner ones are made first.
	let text = said;
	while (/\{[^{}]*\}/.test(text)) text = text.replace(/\{([^{}]*)\}/g, (_, choice: string) => choose(choice));
	return text;
}

/** The clauses of a kind as a text with this title says them. */
export function clausesOf(kind: TextKind, title: string): Clause[] {
	return kind.clauses
		.flatMap((part, at) => (Array.isArray(part) ? [part] : some(part.of, part.some, `${title} ${at}`)))
		.map(([head, ...body]) => ({
			head: filled(head, `${title} ${head}`),
			body: body
				.flatMap((line) => (typeof line === 'string' ? [line] : some(line.of, line.some, `${title} ${head}`)))
				.map((said, at) => filled(said, `${title} ${head} ${at}`))
		}));
}
