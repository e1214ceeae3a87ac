/** What becomes of a release, in order. */
export const RELEASE_STATES = [
	'building',
	'in-review',
	'approved',
	'issued',
	'superseded',
	'cancelled'
] as const;
export type ReleaseState = (typeof RELEASE_STATES)[number];

export const RELEASE_STATE_LABEL: Record<ReleaseState, string> = {
	building: 'being built',
	'in-review': 'in review',
	approved: 'approved',
	issued: 'issued',
	superseded: 'superseded',
	cancelled: 'cancelled'
};
