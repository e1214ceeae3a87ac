import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { withoutLock } from './attachments-locked';

const locked = new Uint8Array(
	readFileSync(join(import.meta.dirname, '../../../../tests/files/attachment-locked.pdf'))
);

describe('a PDF whose attachments alone are locked', () => {
	it('opens, with every byte but the word that asked for a password as it was', async () => {
		await expect(PDFDocument.load(locked)).rejects.toThrow(/encrypted/);
		const open = withoutLock(locked)!;
		expect(open).toHaveLength(locked.length);
		expect(open.filter((byte, i) => byte !== locked[i]).length).toBeLessThanOrEqual(7);
		expect((await PDFDocument.load(open)).getPageCount()).toBe(1);
	});

	it('is the only one that is touched', async () => {
		const pdf = await PDFDocument.create();
		pdf.addPage();
		expect(withoutLock(await pdf.save())).toBeNull();
		const text = (bytes: Uint8Array) => new TextDecoder('latin1').decode(bytes);
		const bytes = (said: string) => Uint8Array.from(said, (letter) => letter.charCodeAt(0));
		// Pages that are encrypted too stay locked.
		expect(withoutLock(bytes(text(locked).replace('/EFF /StdCF', '/StmF/StdCF')))).toBeNull();
		expect(withoutLock(bytes(text(locked).replace('/EFF /StdCF', '/StrF/StdCF')))).toBeNull();
		expect(withoutLock(bytes('/Encrypt 12 0 R and nothing else'))).toBeNull();
	});
});
