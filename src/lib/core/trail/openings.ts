/** Kinds of events that tell of reading and taking, not of changes; hidden until asked for (V5). */
export const OPENINGS = [
	'document.opened',
	'document.downloaded',
	'pass.opened',
	'pass.document-opened',
	'pass.document-downloaded',
	'pass.release-downloaded'
] as const;
