import { REFERENCE_LABEL, type Reference } from '../../core/references/references';

/** The colour in which it is said how a reference stands. */
export const LOOK: Record<Reference, string> = {
	current: 'text-done',
	older: 'text-fault',
	newer: 'text-lock',
	'not-issued': 'text-lock',
	planned: 'text-wait',
	unknown: 'text-fault'
};

/** What is said of a reference: how the named document stands, and as which revision it is named. */
export function saysOf(one: {
	how: Reference;
	revision: string | null;
	/** A number that is there and was most likely meant. */
	meant: string | null;
	document: { issued: string | null } | null;
}): string {
	const issued = one.document?.issued;
	if (one.how === 'older') return `names ${one.revision}; ${issued} is issued`;
	if (one.how === 'newer') return `names ${one.revision}, which is not issued; ${issued} is`;
	if (one.how === 'unknown' && one.meant) return `no such document; perhaps ${one.meant}`;
	if (one.how === 'current') return one.revision ? `${one.revision}, as issued` : `${issued} is issued`;
	return REFERENCE_LABEL[one.how];
}
