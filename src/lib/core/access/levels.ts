/** The levels of access, lowest first; each includes the ones before it, except Drop, which sees nothing. */
export const LEVELS = ['drop', 'view', 'download', 'remark', 'work', 'organise', 'manage'] as const;
export type Level = (typeof LEVELS)[number];

/** What a grant can say: a level, or that it bars. */
export const GIVEN = [...LEVELS, 'barred'] as const;
export type Given = (typeof GIVEN)[number];

const LABELS: Record<Given, string> = {
	barred: 'Barred',
	drop: 'Drop',
	view: 'View',
	download: 'Download',
	remark: 'Remark',
	work: 'Work',
	organise: 'Organise',
	manage: 'Manage'
};

/** The word a person reads for a level, or a bar. */
export function levelLabel(level: Given): string {
	return LABELS[level];
}

/** What each lets somebody do, said where it is chosen; each includes those before it, except Drop. */
export const GIVEN_MEANS: Readonly<Record<Given, string>> = {
	barred: 'no access here, whatever else gives some',
	drop: 'put files in; sees nothing, not even names',
	view: 'see and open on screen; no download, no print',
	download: 'also download, print and keep in step',
	remark: 'also remark and mark up',
	work: 'also add, lock, hand in and edit together',
	organise: 'also rename, move, tag, remove and restore what others made',
	manage: 'also decide access, freeze, break locks and make passes'
};

/** Position of a level on the ladder: 0 (Drop) to 6 (Manage). */
export function rank(level: Level): number {
	switch (level) {
		case 'drop':
			return 0;
		case 'view':
			return 1;
		case 'download':
			return 2;
		case 'remark':
			return 3;
		case 'work':
			return 4;
		case 'organise':
			return 5;
		case 'manage':
			return 6;
	}
}

/** Whether somebody holding `held` may do what asks for `needed`. Holding nothing (null) allows nothing. */
export function allows(held: Level | null, needed: Level): boolean {
	if (held === null) return false;
	if (needed === 'drop') return true;
	return held !== 'drop' && rank(held) >= rank(needed);
}

export function higher(a: Level | null, b: Level | null): Level | null {
	if (a === null) return b;
	if (b === null) return a;
	return rank(a) >= rank(b) ? a : b;
}

export function cap(level: Level | null, ceiling: Level): Level | null {
	if (level === null) return null;
	return rank(level) > rank(ceiling) ? ceiling : level;
}

/** What four levels were called before; events keep the words that they were written with. */
const FORMER: Readonly<Record<string, Level>> = {
	Look: 'view',
	Take: 'download',
	Tidy: 'organise',
	Run: 'manage'
};

/** The word of a level as an event tells it, in today's words. */
export function levelToday(word: string | undefined): string {
	const former = FORMER[word ?? ''];
	return former ? LABELS[former] : (word ?? '');
}
