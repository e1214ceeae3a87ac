import type { RoomMode } from '../../core/live';

/** Tries what somebody sends before it reaches the others. */
export interface Trial {
	/** What is wrong with a change by somebody who is here in a mode, or null. */
	try(update: Uint8Array, person: string, mode: RoomMode): string | null;
	close(): void;
}
