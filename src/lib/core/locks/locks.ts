import { DAY } from '../time/spans';

/** A lock as the rules see it; times in milliseconds since 1970 (rule L2). */
export interface LockFacts {
	takenAt: number;
	expectedEnd: number | null;
}

/** The moment from which a lock counts as stale: its expected end, or the project's limit, whichever is earlier. */
export function staleFrom(lock: LockFacts, limitDays: number): number {
	return Math.min(lock.expectedEnd ?? Number.POSITIVE_INFINITY, lock.takenAt + limitDays * DAY);
}

export function isStale(lock: LockFacts, limitDays: number, now: number): boolean {
	return now >= staleFrom(lock, limitDays);
}
