/** A release's number as people read it: 42 → 0042. */
export function releaseNumber(number: number): string {
	return String(number).padStart(4, '0');
}
