/** A stamp as people choose it: its name, and the words it puts on a sheet. */
export interface StampKind {
	label: string;
	text: string;
}

/** What projects stamp unless they say otherwise. */
export const DEFAULT_STAMPS = ['Checked', 'For coordination', 'Superseded', 'As built', 'Hold'] as const;

/**
 * The stamps of a project with day and name filled in.
 * @param names as the project lists them @param day as people read it
 */
export function stampsFor(names: readonly string[], person: string, day: string): StampKind[] {
	return names.map((label) => ({ label, text: `${label.toUpperCase()}\n${person}\n${day}` }));
}
