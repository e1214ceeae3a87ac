import { CALCULATIONS } from './calculations';
import { clausesOf, filled, type Clause, type TextKind } from './kind';
import { MINUTES } from './minutes';
import { PROCEDURES } from './procedures';
import { REPORTS } from './reports';
import { SITE } from './site';
import { SPECIFICATIONS } from './specifications';

/** What is written into any text once its own additions are in it. */
const LATER = [
	'Looked through after the remarks of {Structures|Marine works|Architecture|Building services}; nothing else changes.',
	'Wording as agreed in the coordination of week {38|40|42|44|46}.',
	'A reference to a superseded sheet is taken out.',
	'Units are written the same throughout.'
];

/** Kinds in the order in which they are tried; the first that a title goes by holds. */
const KINDS: readonly TextKind[] = [
	...PROCEDURES,
	...SPECIFICATIONS,
	...MINUTES,
	...SITE,
	...REPORTS,
	...CALCULATIONS
];

/**
 * The clauses of a text as of one of its versions. Raises an error where no kind of text goes by its title.
 * @param edit counts the versions: each adds a sentence where somebody would look for it
 */
export function clauses(title: string, edit: number): Clause[] {
	const kind = KINDS.find((one) => one.title.test(title));
	if (!kind) throw new Error(`No kind of text goes by the title “${title}”.`);
	const list = clausesOf(kind, title);
	const where = list.find((clause) => clause.head === kind.addedTo) ?? list.at(-1)!;
	const further = [...kind.added, ...LATER];
	for (let i = 1; i < edit; i++) {
		where.body.push(filled(further[(i - 1) % further.length]!, `${title} ${i}`));
	}
	return list;
}
