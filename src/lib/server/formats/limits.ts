import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { withoutLock } from '../../formats/pdf/attachments-locked';

const run = promisify(execFile);

/** Drawings over this many bytes are kept and downloaded, not read. */
export const MOST_DXF_BYTES = 120_000_000;

/** Pictures of more pixels than this are not opened. */
export const MOST_PICTURE_PIXELS = 268_000_000;

const LIMITS = { timeout: 20_000, maxBuffer: 64 * 1024 * 1024, killSignal: 'SIGKILL' as const };
const MEMORY = '--as=1500000000';

/**
 * Runs a program with bounded time, memory and output; hostile files must not take the server with them.
 * @param memory false for programs that reserve more than they use; these know their own time, too
 * @param home a folder that the program may take for its own
 */
export function bounded(
	program: string,
	args: string[],
	{ memory = true, home }: { memory?: boolean; home?: string } = {}
): Promise<{ stdout: string }> {
	const env = home ? { PATH: process.env.PATH, HOME: home, TMPDIR: home } : process.env;
	return memory
		? run('prlimit', [MEMORY, program, ...args], { ...LIMITS, env })
		: run(program, args, { ...LIMITS, timeout: 0, env });
}

/**
 * Runs a poppler tool on a PDF.
 * @param args what stands before the file's name, and `out` what stands after it
 */
export function poppler(
	tool: string,
	path: string,
	args: string[],
	...out: string[]
): Promise<{ stdout: string }> {
	return unlocked(path, (file) => bounded(tool, [...args, file, ...out]));
}

/** The same for tools that answer with bytes. */
export async function popplerBytes(tool: string, path: string, args: string[]): Promise<Buffer> {
	const bytes = (file: string) =>
		run('prlimit', [MEMORY, tool, ...args, file], { ...LIMITS, encoding: 'buffer' });
	return (await unlocked(path, bytes)).stdout;
}

/** Whether a tool asks for the password of a PDF. What is only kept from being changed opens without one. */
export const asksForPassword = (error: unknown): boolean =>
	/incorrect password/i.test(String((error as { stderr?: string | Buffer }).stderr ?? ''));

/** Opens a PDF; one whose attachments alone are locked as a copy that asks for nothing. */
async function unlocked<T>(path: string, open: (path: string) => Promise<T>): Promise<T> {
	try {
		return await open(path);
	} catch (error) {
		const pages = asksForPassword(error) ? withoutLock(await readFile(path)) : null;
		if (!pages) throw error;
		const folder = await mkdtemp(join(tmpdir(), 'cupboard-pdf-'));
		try {
			await writeFile(join(folder, 'open.pdf'), pages);
			return await open(join(folder, 'open.pdf'));
		} finally {
			await rm(folder, { recursive: true, force: true });
		}
	}
}
