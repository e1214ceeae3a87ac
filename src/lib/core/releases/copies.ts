import { canStamp, isSheetKind } from '../files/kinds';
import { fullDayWords } from '../time/days';
import { plural } from '../words/sentences';
import { releaseNumber } from './number';
import { suitabilityText, type Suitability } from './suitability';

/** How the documents of a release leave (T6); without either they leave as they are. */
export interface Leaving {
	/** They carry a stamp that says what they are and with which release they went out. */
	stamped: boolean;
	/** The marks on them are burned in. */
	withMarks: boolean;
}

/** What is put on one document on its way out. */
export interface Changes {
	stamp: boolean;
	/** How many marks are burned in. */
	marks: number;
}

/** What a document that was changed on its way out was made from (T14). Size in bytes, hash SHA-256 in hex. */
export interface MadeFrom {
	file: string;
	size: number;
	sha256: string;
	/** What was put on it, in words. */
	how: string;
}

/** Largest file that is copied with a stamp or with marks, in bytes. */
export const MOST_COPIED = 200 * 1024 ** 2;

/**
 * What is put on a document on its way out; null where it leaves as it is, since nothing is asked or its kind carries none.
 * A sheet with marks becomes a PDF, and that carries a stamp whatever it was made from.
 * @param marks how many marks lie on the version
 */
export function changesOf(
	{ stamped, withMarks }: Leaving,
	file: { mediaType: string; size: number },
	marks: number
): Changes | null {
	if (file.size > MOST_COPIED) return null;
	const burned = withMarks && isSheetKind(file.mediaType) ? marks : 0;
	const stamp = stamped && (burned > 0 || canStamp(file.mediaType));
	return stamp || burned ? { stamp, marks: burned } : null;
}

/** What is put on a document, in words. */
export function changesWords({ stamp, marks }: Changes): string {
	return [...(stamp ? ['stamped'] : []), ...(marks ? [`with ${plural(marks, 'mark')}`] : [])].join(', ');
}

/** How the documents of a release leave, in words. */
export function leavingWords({ stamped, withMarks }: Leaving): string {
	return (
		[...(stamped ? ['stamped'] : []), ...(withMarks ? ['with the marks on them'] : [])].join(', ') ||
		'as they are'
	);
}

/**
 * What the stamp of a release says on a document: what it is and may be used for, and with what and when it went out.
 * @param words those of the project, first
 * @param day of issue, YYYY-MM-DD
 */
export function stampText(of: {
	words: string;
	number: string;
	revision: string;
	suitability: Suitability;
	release: number;
	day: string;
}): string {
	return [
		of.words,
		`${of.number} ${of.revision} · ${suitabilityText(of.suitability)}`,
		`Release ${releaseNumber(of.release)} · ${fullDayWords(of.day)}`
	]
		.filter(Boolean)
		.join('\n');
}
