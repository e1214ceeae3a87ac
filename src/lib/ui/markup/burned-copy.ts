import { CallError } from '../../client/call';
import type { burnedPdf } from './burn';

/**
 * The bytes of a sheet. Raises {@link CallError} where they do not come.
 * @param address where the file lies
 */
export async function sheetBytes(address: string): Promise<ArrayBuffer> {
	const response = await fetch(address);
	if (!response.ok) throw new CallError('busy', 'The file could not be fetched.', {});
	return response.arrayBuffer();
}

/** What a reader of files says is wrong with one, as a refusal that is shown. */
export function plainly(error: unknown): never {
	throw new CallError('invalid', (error as Error).message, {});
}

/** A copy of a sheet as PDF with marks burned in. Raises {@link CallError} for files that cannot be copied so. */
export async function burnedCopy(
	address: string,
	burning: Omit<Parameters<typeof burnedPdf>[0], 'bytes'>
): Promise<Uint8Array> {
	const bytes = await sheetBytes(address);
	const { burnedPdf } = await import('./burn');
	return burnedPdf({ ...burning, bytes }).catch(plainly);
}
