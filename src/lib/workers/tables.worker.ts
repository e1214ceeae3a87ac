/** Reads schedules off the main thread. */
import type { Encoding } from '../core/files/encoding';
import type { ShownTable } from '../core/files/shown';
import { Unreadable } from '../formats/package/fault';
import { readTables } from '../formats/tables/read';

export interface TablesRequest {
	bytes: ArrayBuffer;
	mediaType: string;
	encoding: Encoding | null;
}
export type TablesAnswer = { tables: ShownTable[] } | { fault: string };

/** Most rows of a sheet and columns of a row that are read. */
const MOST = { rows: 50_000, columns: 400 };

self.onmessage = async ({ data }: MessageEvent<TablesRequest>) => {
	const { bytes, mediaType, encoding } = data;
	const answer: TablesAnswer = await readTables(new Uint8Array(bytes), mediaType, MOST, { encoding }).then(
		(tables) => ({ tables }),
		(error: unknown) => ({
			fault: error instanceof Unreadable ? error.message : 'This file is damaged and cannot be shown.'
		})
	);
	self.postMessage(answer);
};
