import type { Entity } from '../dxf/read';

/** Group codes that programs number anew with every save: handles, owners and what they keep about them. */
const NUMBERED = new Set([5, 100, 102, 105, 330, 360]);

/** An entity as it reads, apart from what is numbered anew. */
function reading({ type, groups, children }: Entity): string {
	let text = type;
	for (const [code, value] of groups) if (!NUMBERED.has(code)) text += `\n${code} ${value}`;
	for (const child of children) text += `\n${reading(child)}`;
	return text;
}

/**
 * What is left of two lists without the entities that read the same in both. Nearly all of a drawing does, and need not
 * be taken apart.
 * @param looks whether an entity that reads the same looks the same, too
 */
export function withoutSame(
	before: readonly Entity[],
	after: readonly Entity[],
	looks: (entity: Entity) => boolean
): [Entity[], Entity[]] {
	const texts = before.map((entity) => (looks(entity) ? reading(entity) : null));
	/** How often each stands in the first and has not been met in the second. */
	const waiting = new Map<string, number>();
	for (const text of texts) if (text !== null) waiting.set(text, (waiting.get(text) ?? 0) + 1);
	const met = (text: string) => {
		const left = waiting.get(text) ?? 0;
		if (left > 0) waiting.set(text, left - 1);
		return left > 0;
	};
	const restAfter = after.filter((entity) => !looks(entity) || !met(reading(entity)));
	const restBefore = before.filter((_, i) => texts[i] === null || met(texts[i]!));
	return [restBefore, restAfter];
}
