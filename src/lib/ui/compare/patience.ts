/** Comparing never takes longer than this; what does is given up, in milliseconds. */
export const PATIENCE = 60_000;
export const TOO_LONG = 'Comparing these took too long and was given up.';
