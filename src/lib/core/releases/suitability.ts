import type { Purpose } from '../revisions/revisions';

/** What a document may be used for, as its sheet and lists say it: a short code and what it stands for. */
export interface Suitability {
	code: string;
	words: string;
}
export type SuitabilityCodes = Record<Purpose, Suitability>;

/** The code of a purpose in a project. */
export const suitabilityOf = (settings: { suitability?: SuitabilityCodes }, purpose: Purpose): Suitability =>
	(settings.suitability ?? USUAL_SUITABILITY)[purpose];

/** How a code reads: with its words, where it has some; empty where the project uses none for this purpose. */
export const suitabilityText = ({ code, words }: Suitability): string =>
	[code, words].filter(Boolean).join(' ');

/** The status codes of the national annex to ISO 19650-2, where a project has none of its own. */
export const USUAL_SUITABILITY: SuitabilityCodes = {
	information: { code: 'S2', words: 'Suitable for information' },
	comment: { code: 'S3', words: 'Suitable for review and comment' },
	approval: { code: 'S4', words: 'Suitable for review and authorization' },
	construction: { code: 'A1', words: 'Authorized and accepted' },
	'as-built': { code: 'CR', words: 'As constructed record' }
};
