import { untrack } from 'svelte';

/** A field that shows what is kept, also when others change it meanwhile, until one writes something else into it. */
export class Followed<T> {
	value = $state() as T;
	private kept: T;

	/** @param kept what is kept when it is shown first */
	constructor(kept: T) {
		this.value = this.kept = kept;
	}

	/** Takes over what is kept by now, unless one has written something else and that is not kept yet. */
	follow(kept: T): void {
		if (untrack(() => this.value) === this.kept) this.value = kept;
		this.kept = kept;
	}
}
