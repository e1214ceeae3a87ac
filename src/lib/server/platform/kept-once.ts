import { randomUUID } from 'node:crypto';
import { linkSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * Writes a secret of the installation unless it is there: whole or not at all, for its owner only. Of several processes
 * that do so at once, the first one's stays.
 */
export function keepOnce(path: string, text: string): void {
	mkdirSync(dirname(path), { recursive: true });
	const beside = `${path}.${randomUUID()}`;
	writeFileSync(beside, text, { mode: 0o600, flag: 'wx' });
	try {
		linkSync(beside, path);
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
	} finally {
		rmSync(beside);
	}
}
