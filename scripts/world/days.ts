import { dayOf } from '../../src/lib/core/time/days';

/** Where Vennholm lies: the world's clock shows UTC, its days are those of the harbour. */
export const ZONE = 'Europe/Stockholm';

/** The day of a moment of the world, as `2026-11-27`. */
export const dayIn = (at: number | Date): string => dayOf(new Date(at), ZONE);
