import type { RoomMode } from '../../../core/live/live';

/** Who sends something: the person, and the ids of the departments they work for in the project. */
export interface Who {
	id: string;
	departments: readonly string[];
}

/** Tries what somebody sends before it reaches the others. */
export interface Trial {
	/** What is wrong with a change by somebody who is here in a mode, or null. */
	try(update: Uint8Array, who: Who, mode: RoomMode): string | null;
	close(): void;
}
