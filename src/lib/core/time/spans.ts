/** A day as a span of time, in milliseconds. Days of a calendar are not all that long: those are reckoned in `days`. */
export const DAY = 86_400_000;

/**
 * The moment that many spans of a day later, or earlier when negative: for what lapses after a time, whatever the
 * calendar says.
 */
export function daysLater(from: Date, days: number): Date {
	return new Date(from.getTime() + days * DAY);
}
