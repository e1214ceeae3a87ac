import type { NumberingRule } from '../numbering/numbering';
import { partOf } from '../register/numbers';

/** In which order the documents of a release are listed. */
export const ITEM_ORDERS = ['added', 'number', 'title', 'placed'] as const;
export type ItemOrder = (typeof ITEM_ORDERS)[number];

/** How the documents of a release are listed: in which order, and in groups by which part of their numbers. */
export interface Arrangement {
	order: ItemOrder;
	/** Key of a part of the numbering rule; null for one list. */
	group: string | null;
}

/** What the order of a document in a release comes from. */
interface Listed {
	number: string;
	title: string;
	/** Its place in an order set by hand; null where that was set before it came, or never. */
	placed: number | null;
}

/** As they were added, in one list. */
export const AS_ADDED: Arrangement = { order: 'added', group: null };

export const ITEM_ORDER_LABEL: Record<ItemOrder, string> = {
	added: 'as they were added',
	number: 'by number',
	title: 'by title',
	placed: 'in an order set by hand'
};

/** What stands over documents whose number does not say the part that they are grouped by. */
export const NO_GROUP = 'Others';

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** The parts of a rule by which documents can be grouped: all that tell several from each other, but not the serial. */
export const groupings = (rule: NumberingRule): { key: string; label: string }[] =>
	rule.parts.slice(0, -1).flatMap(({ key, label, values }) => (values?.length === 1 ? [] : [{ key, label }]));

const upright = (name: string) => name.slice(0, 1).toUpperCase() + name.slice(1);

const inOrder: Record<ItemOrder, (a: Listed, b: Listed) => number> = {
	added: () => 0,
	number: (a, b) => collator.compare(a.number, b.number),
	title: (a, b) => collator.compare(a.title, b.title),
	// What came after the order was set stands at its end. Infinity from itself is no number.
	placed: (a, b) => (a.placed === b.placed ? 0 : (a.placed ?? Infinity) - (b.placed ?? Infinity))
};

/**
 * Lists documents as a release arranges them, each with the heading that it stands under: what the rule calls that part
 * of its number. Groups come in the order of the rule's own list, then by their codes; numbers that do not say it, last.
 * @param items in the order in which they were added
 * @returns the same, each once; headings are empty where there is one list
 */
export function arranged<Item extends Listed>(
	items: readonly Item[],
	{ order, group }: Arrangement,
	rule: NumberingRule
): (Item & { heading: string })[] {
	const sorted = [...items].sort(inOrder[order]);
	// A part that the rule has lost since groups nothing.
	const part = rule.parts.find(({ key }) => key === group);
	if (group === null || !part) return sorted.map((item) => ({ ...item, heading: '' }));
	const values = part.values ?? [];
	const groups = new Map<string, { heading: string; items: Item[] }>();
	for (const item of sorted) {
		const code = partOf(rule, item.number, group).toUpperCase();
		const known = values.find((value) => value.code.toUpperCase() === code);
		const heading = known ? upright(known.name) : code || NO_GROUP;
		const of = groups.get(code) ?? { heading, items: [] };
		of.items.push(item);
		groups.set(code, of);
	}
	const placeOf = (code: string) => {
		const at = values.findIndex((value) => value.code.toUpperCase() === code);
		return code === '' ? Infinity : at < 0 ? values.length : at;
	};
	return [...groups]
		.sort(([a], [b]) => {
			const [x, y] = [placeOf(a), placeOf(b)];
			return x === y ? collator.compare(a, b) : x < y ? -1 : 1;
		})
		.flatMap(([, { heading, items: of }]) => of.map((item) => ({ ...item, heading })));
}

/** An arrangement in words, such as “by number, in groups by department”. */
export function arrangementWords({ order, group }: Arrangement, rule: NumberingRule): string {
	const part = rule.parts.find(({ key }) => key === group);
	return `${ITEM_ORDER_LABEL[order]}${group === null ? '' : `, in groups by ${(part?.label ?? group).toLowerCase()}`}`;
}
