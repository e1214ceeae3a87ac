import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { FEWEST, MARK_KINDS, WITH_WORDS, type Mark } from '../../src/lib/core/markup/mark';
import { annotatedPdf, marksIn } from '../../src/lib/ui/markup/annotate';

const folder = mkdtempSync(join(tmpdir(), 'cupboard-annotations-'));
const TURNS = [0, 90, 180, 270];

/** A set of A3 sheets, each turned another way, one of them cut. */
async function sheets(): Promise<ArrayBuffer> {
	const pdf = await PDFDocument.create();
	for (const turn of TURNS) {
		const page = pdf.addPage([1191, 842]);
		page.setRotation(degrees(turn));
		page.drawText(`turned by ${turn}`, { x: 100, y: 100 });
	}
	pdf.getPage(1).setCropBox(50, 60, 900, 700);
	return Uint8Array.from(await pdf.save()).buffer;
}
const point = fc.record({ x: fc.integer({ min: 0, max: 600 }), y: fc.integer({ min: 0, max: 600 }) });
const mark = fc.constantFrom(...MARK_KINDS).chain((kind) =>
	fc.record({
		id: fc.uuid().map((id) => id.slice(0, 8)),
		kind: fc.constant(kind),
		page: fc.integer({ min: 1, max: TURNS.length }),
		points: fc.uniqueArray(point, {
			minLength: Math.max(2, FEWEST[kind]),
			maxLength: Math.max(2, FEWEST[kind]) + 3,
			selector: ({ x, y }) => `${x} ${y}`
		}),
		turn: fc.constant(0),
		size: fc.integer({ min: 6, max: 30 }),
		text: fc.constant(WITH_WORDS.has(kind) ? 'HAT +3.55 größer' : ''),
		layer: fc.constantFrom('MW', 'ST', ''),
		by: fc.constant('p1'),
		at: fc.constant('2026-11-26T09:12:00.000Z'),
		group: fc.constant(null),
		order: fc.integer({ min: 0, max: 99 }),
		carried: fc.constant(null)
	})
);
const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8' });

it('qpdf finds no fault in a PDF with marks of every kind, poppler draws it, and every mark comes back', async () => {
	const bytes = await sheets();
	const seen = new Set<string>();
	for (const [i, marks] of fc
		.sample(fc.array(mark, { minLength: 4, maxLength: 12 }), { numRuns: 40, seed: 3 })
		.entries()) {
		const made = await annotatedPdf({
			bytes,
			marks: marks as Mark[],
			scales: new Map(),
			codes: ['AR', 'ST', 'MW'],
			names: new Map([['p1', 'Oke Lindvar']])
		});
		const path = join(folder, `${i}.pdf`);
		writeFileSync(path, made);
		const checked = run('qpdf', '--check', path);
		expect(checked.stdout + checked.stderr).toContain('No syntax or stream encoding errors found');
		const drawn = run('pdftoppm', '-r', '20', '-png', path, join(folder, String(i)));
		expect([drawn.status, drawn.stderr]).toEqual([0, '']);
		const back = await marksIn(new File([Uint8Array.from(made)], 'marked.pdf'), bytes);
		expect(back.others).toBe(0);
		// Each place that was counted is an annotation of its own.
		const kinds = marks.flatMap(({ kind, points }) => (kind === 'count' ? points.map(() => kind) : [kind]));
		expect(back.marks.map((one) => one.kind).sort()).toEqual(kinds.sort());
		kinds.forEach((kind) => seen.add(kind));
	}
	expect([...seen].sort()).toEqual([...MARK_KINDS].sort());
});
