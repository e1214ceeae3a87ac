/** By what viewers are given the way to keep files that lie within what they show. */
export const KEEP_FILES = Symbol('keep files');

export interface KeepFiles {
	/** Adds files as documents beside the one that is shown, once their numbers are settled; null for who may not. */
	readonly keep: ((files: File[]) => void) | null;
}
