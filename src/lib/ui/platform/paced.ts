/** A function that is called no more often than every so many milliseconds, and always with what came last. */
export interface Paced<T> {
	(value: T): void;
	/** Tells at once, and nothing that waited. */
	now(value: T): void;
	/** Drops what waits. */
	stop(): void;
}

/**
 * Paces how often something is told, such as where a pointer is: the first at once, of all that comes within the time
 * the last at its end.
 * @param every milliseconds
 */
export function paced<T>(every: number, tell: (value: T) => void): Paced<T> {
	let told = -Infinity;
	let waiting: ReturnType<typeof setTimeout> | undefined;
	const now = (value: T) => {
		clearTimeout(waiting);
		waiting = undefined;
		told = performance.now();
		tell(value);
	};
	const pace = (value: T) => {
		clearTimeout(waiting);
		const left = told + every - performance.now();
		if (left <= 0) now(value);
		else waiting = setTimeout(() => now(value), left);
	};
	return Object.assign(pace, { now, stop: () => clearTimeout(waiting) });
}
