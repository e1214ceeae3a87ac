import { cupboard, type AnswerOf } from '../../client/cupboard';
import { numberAfter } from '../../core/files/settle';
import type { NumberingRule } from '../../core/numbering/numbering';

/** Names or numbers asked about in one question, which takes five thousand at most. */
const ASKED_AT_ONCE = 1_000;
function* inParts<T>(all: readonly T[]): Generator<T[]> {
	for (let at = 0; at < all.length; at += ASKED_AT_ONCE) yield all.slice(at, at + ASKED_AT_ONCE);
}

export type Proposal = AnswerOf<'proposals'>['proposals'][number];
/** What has a number already, and the next free one like it. */
export type InUse = AnswerOf<'numbersInUse'>['inUse'][number];

/**
 * Numbers and titles proposed for files, in their order, in as many questions as it takes. A next free number is no
 * other file's, nor one of those that are `had` already. Raises what a question is refused with.
 */
export async function* proposalsFor(
	place: string,
	numbering: NumberingRule,
	files: readonly string[],
	had: Iterable<string> = []
): AsyncGenerator<Proposal> {
	const taken = new Set(had);
	for (const some of inParts(files)) {
		const { proposals } = await cupboard.proposals({ place, files: some });
		for (const proposal of proposals) {
			let { number } = proposal;
			while (proposal.from === 'next' && taken.has(number)) {
				const next = numberAfter(numbering, number, 1);
				if (!next) break;
				number = next;
			}
			taken.add(number);
			yield { ...proposal, number };
		}
	}
}

/** What has each of some numbers, null where it is free; in as many questions as it takes. Raises what one is refused with. */
export async function* usesOf(
	project: string,
	numbers: readonly string[]
): AsyncGenerator<[number: string, use: InUse | null]> {
	for (const some of inParts(numbers)) {
		const { inUse } = await cupboard.numbersInUse({ project, numbers: some });
		for (const number of some) yield [number, inUse.find((use) => use.number === number) ?? null];
	}
}
