import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { MANIFEST } from '../../../../tests/manifest';
import type { Manifest } from '../../core/releases';
import { coverNote, coverNotes } from './cover-note';

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

/** What an outside reader finds on the pages: their words as they are laid out, or each with its place (`-bbox`). */
function read(note: Uint8Array, how: '-layout' | '-bbox' = '-layout'): string {
	const folder = mkdtempSync(join(tmpdir(), 'cupboard-note-'));
	try {
		writeFileSync(join(folder, 'note.pdf'), note);
		return execFileSync('pdftotext', [how, join(folder, 'note.pdf'), '-'], { encoding: 'utf8' });
	} finally {
		rmSync(folder, { recursive: true });
	}
}
const words = async (made: Manifest, replyBy: string | null, draft = false) =>
	read(await coverNote(made, replyBy, draft));

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

it('to several is the same as if each was written alone, whatever is asked of them and whoever they are', async () => {
	const to = [
		{ recipient: 'Maren Aldgate, Vennholm Harbour Trust', replyBy: '2026-12-02' },
		{ recipient: 'Kaja Dorn, Tarn Steelwork', replyBy: '2026-12-02' },
		{ recipient: 'Žofie Quist (Øst), Väst', replyBy: null }
	];
	const made = manifest(120);
	made.documents.forEach((item, i) => (item.group = i < 50 ? 'Marine works' : 'Quay wall'));
	const together = await coverNotes(made, to);
	for (const [i, { recipient, replyBy }] of to.entries()) {
		const alone = await coverNote({ ...made, recipient }, replyBy);
		expect(read(together[i]!, '-bbox')).toBe(read(alone, '-bbox'));
		expect(read(together[i]!)).toContain(recipient.split(',')[0]);
		expect(read(together[i]!).match(/page \d+ of \d+/g)!.length).toBeGreaterThan(3);
	}
});
