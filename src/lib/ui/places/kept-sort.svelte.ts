import type { SortKey } from './list';

const KEYS: readonly string[] = [
	'number',
	'title',
	'label',
	'now',
	'changed',
	'kind',
	'size'
] satisfies SortKey[];

/** How a person sorts lists of documents, as this browser remembers it. */
export class KeptSort {
	key = $state<SortKey>('number');
	down = $state(false);

	constructor(private readonly person: string) {
		if (typeof localStorage === 'undefined') return;
		const [key, way] = (localStorage.getItem(this.name) ?? '').split(' ');
		if (!KEYS.includes(key!)) return;
		this.key = key as SortKey;
		this.down = way === 'down';
	}

	private get name(): string {
		return `cupboard-sort/${this.person}`;
	}

	/** Sorts by a column; by the same again, the other way round. What is newest or largest stands first. */
	by(column: SortKey): void {
		this.down = this.key === column ? !this.down : column === 'changed' || column === 'size';
		this.key = column;
		localStorage.setItem(this.name, `${this.key} ${this.down ? 'down' : 'up'}`);
	}
}
