import type { Encoding } from '../../core/files/encoding';
import type { ShownTable } from '../../core/files/shown';
import { Unreadable } from '../../formats/package/fault';
import type { TablesAnswer, TablesRequest } from '../../workers/tables.worker';

/** Reading a schedule never takes longer than this, in milliseconds. */
const PATIENCE = 30_000;
/** Most bytes of a schedule that are read in the browser. */
const MOST_BYTES = 60_000_000;

/**
 * Reads a schedule as its sheets, in a worker of its own.
 * @param encoding of CSV, when somebody knows it; otherwise it is told from the bytes
 * @param signal ends the worker, after which nothing settles any more
 * Raises {@link Unreadable} for a file that is damaged, locked, too large, or takes too long.
 */
export function readTables(
	bytes: ArrayBuffer,
	mediaType: string,
	{ encoding = null, signal }: { encoding?: Encoding | null; signal?: AbortSignal } = {}
): Promise<ShownTable[]> {
	if (bytes.byteLength > MOST_BYTES)
		return Promise.reject(
			new Unreadable('This schedule is too large to be shown here. Download it, or hand it in in parts.')
		);
	return new Promise((done, failed) => {
		const worker = new Worker(new URL('../../workers/tables.worker.ts', import.meta.url), { type: 'module' });
		const end = () => {
			clearTimeout(timer);
			worker.terminate();
		};
		const fail = (sentence: string) => {
			end();
			failed(new Unreadable(sentence));
		};
		const timer = setTimeout(
			() => fail('Reading this schedule took too long and was given up. Download it to see it.'),
			PATIENCE
		);
		signal?.addEventListener('abort', end);
		worker.onmessage = ({ data }: MessageEvent<TablesAnswer>) => {
			if ('fault' in data) return fail(data.fault);
			end();
			done(data.tables);
		};
		worker.onerror = () => fail('This file is damaged and cannot be shown.');
		worker.postMessage({ bytes, mediaType, encoding } satisfies TablesRequest);
	});
}
