/**
 * What a list is narrowed to. While an answer is on its way it is what was asked for last, so that the next choice builds
 * on that and not on what is loaded yet.
 */
export class Narrowing<To extends object> {
	private ahead = $state.raw<To | null>(null);

	/**
	 * @param loaded what the list that is shown is narrowed to
	 * @param go asks for another; settles once that is shown, or another one was asked for
	 */
	constructor(
		private readonly loaded: () => To,
		private readonly go: (to: To) => Promise<unknown>
	) {}

	get now(): To {
		return this.ahead ?? this.loaded();
	}

	/** Narrows it by something else, too. */
	change(part: Partial<To>): void {
		const to = { ...this.now, ...part };
		this.ahead = to;
		const settled = () => {
			if (this.ahead === to) this.ahead = null;
		};
		void this.go(to).then(settled, settled);
	}
}
