/** Columns of a list that one may do without, in their order; number and title are always there. */
export const OPTIONAL = ['label', 'now', 'changed', 'reach', 'kind', 'size'] as const;
export type OptionalColumn = (typeof OPTIONAL)[number];

/** Which columns a person wants in lists of documents, as this browser remembers it. */
export class KeptColumns {
	private hidden = $state<OptionalColumn[]>([]);

	constructor(private readonly person: string) {
		if (typeof localStorage === 'undefined') return;
		const kept = (localStorage.getItem(this.name) ?? '').split(' ');
		this.hidden = OPTIONAL.filter((column) => kept.includes(column));
	}

	private get name(): string {
		return `cupboard-columns/${this.person}`;
	}

	shows(column: OptionalColumn): boolean {
		return !this.hidden.includes(column);
	}

	/** Shows a column, or takes it away. */
	show(column: OptionalColumn, shown: boolean): void {
		this.hidden = OPTIONAL.filter((one) => (one === column ? !shown : this.hidden.includes(one)));
		if (this.hidden.length) localStorage.setItem(this.name, this.hidden.join(' '));
		else localStorage.removeItem(this.name);
	}
}
