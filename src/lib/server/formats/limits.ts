import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);

/** Drawings over this many bytes are kept and downloaded, not read. */
export const MOST_DXF_BYTES = 120_000_000;

/** Pictures of more pixels than this are not opened. */
export const MOST_PICTURE_PIXELS = 268_000_000;

const LIMITS = { timeout: 20_000, maxBuffer: 64 * 1024 * 1024, killSignal: 'SIGKILL' as const };
const MEMORY = '--as=1500000000';

/** Runs a poppler tool with bounded time, memory and output; hostile files must not take the server with them. */
export function poppler(tool: string, args: string[]): Promise<{ stdout: string }> {
	return run('prlimit', [MEMORY, tool, ...args], LIMITS);
}

/** The same for tools that answer with bytes. */
export async function popplerBytes(tool: string, args: string[]): Promise<Buffer> {
	return (await run('prlimit', [MEMORY, tool, ...args], { ...LIMITS, encoding: 'buffer' })).stdout;
}
