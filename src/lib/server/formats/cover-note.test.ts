import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { MANIFEST } from '../../../../tests/manifest';
import type { Manifest } from '../../core/releases';
import { coverNote } from './cover-note';

const manifest = (documents: number): Manifest => ({
	...MANIFEST,
	documents: Array.from({ length: documents }, (_, i) => ({
		number: `VFT-MW-LS-00-DR-${String(i + 1).padStart(4, '0')}`,
		title: `Sheet ${i + 1}, ${'long title '.repeat(12)}`,
		revision: 'P03',
		file: `f${i}.dxf`,
		size: 1_000 + i,
		sha256: String(i).padStart(64, 'a')
	}))
});

/** The words of the pages, as an outside reader sees them. */
async function words(made: Manifest, replyBy: string | null, draft = false): Promise<string> {
	const folder = mkdtempSync(join(tmpdir(), 'cupboard-note-'));
	try {
		writeFileSync(join(folder, 'note.pdf'), await coverNote(made, replyBy, draft));
		return execFileSync('pdftotext', ['-layout', join(folder, 'note.pdf'), '-'], { encoding: 'utf8' });
	} finally {
		rmSync(folder, { recursive: true });
	}
}

it('names the release, the parties, the purpose and every document with its revision', async () => {
	const text = await words(manifest(3), '2026-12-02');
	for (const said of ['0042', 'Linkspan för Øresund', 'Maren Aldgate', 'Ines Maddock', 'Halla Brandt', 'P03'])
		expect(text).toContain(said);
	expect(text.match(/VFT-MW-LS-00-DR-\d{4}/g)).toHaveLength(3);
	expect(text).toMatch(/2 Dec|2026-12-02/);
});

it('says all that was written, over as many lines and pages as it takes, and that a draft is one', async () => {
	const said = `First line.\n${'pile '.repeat(600)}end ${'x'.repeat(130)}`;
	const text = await words({ ...manifest(2), words: said }, null);
	expect(text.match(/pile/g)).toHaveLength(600);
	expect(text.match(/x{10,}/g)!.join('')).toHaveLength(130);
	expect(text.match(/VFT-MW-LS-00-DR-\d{4}/g)).toHaveLength(2);
	expect(text).not.toContain('as it would go out now');
	expect(await words(manifest(1), null, true)).toContain('as it would go out now');
});

it('goes on over pages and leaves none out', async () => {
	const text = await words(manifest(150), null);
	expect(new Set(text.match(/VFT-MW-LS-00-DR-\d{4}/g)).size).toBe(150);
	expect(text.split('\f').length).toBeGreaterThan(3);
});
