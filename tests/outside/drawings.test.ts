import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawing, DRAWING_KINDS } from '../../scripts/world/drawings';
import { attributesOf, hasWords, movable, wordsOf } from '../../src/lib/core/drawing/edited';
import { itemSchema, NO_EDITS, type Change, type Edits, type Item } from '../../src/lib/core/drawing/item';
import { writeEdited } from '../../src/lib/core/drawing/write';
import { decodeDxf, readDxf, type Drawing } from '../../src/lib/core/dxf/read';

const home = mkdtempSync(join(tmpdir(), 'cupboard-dxf-'));

/** What ezdxf makes of a drawing. */
interface Seen {
	faults: string[];
	entities: { kind: string; layer: string; at: number[]; words: string; attributes: [string, string][] }[];
	off: string[];
}
function seenIn(files: Record<string, Uint8Array>): Map<string, Seen> {
	const paths = Object.entries(files).map(([name, bytes]) => {
		const path = join(home, name);
		writeFileSync(path, bytes);
		return path;
	});
	const { status, stdout, stderr } = spawnSync(
		'/usr/bin/python3',
		[join(import.meta.dirname, 'read_dxf.py'), ...paths],
		{
			encoding: 'utf8',
			maxBuffer: 1e9
		}
	);
	if (status !== 0) throw new Error(stderr);
	return new Map(
		Object.entries(JSON.parse(stdout) as Record<string, Seen>).map(([path, seen]) => [basename(path), seen])
	);
}

const place = fc.tuple(fc.integer({ min: -9_000, max: 9_000 }), fc.integer({ min: -9_000, max: 9_000 }));
const WORDS = fc.constantFrom('HAT +3.55', 'Ø600 ± 5', 'größer', '桟橋');

/** Any edits that the screens allow on a drawing. */
function anyEdits(base: Drawing): fc.Arbitrary<Edits> {
	const layers = [...base.layers.values()].map((layer) => layer.name);
	const layer = fc.constantFrom(...(layers.length ? layers : ['0']));
	const item = (fields: Record<string, fc.Arbitrary<unknown>>) =>
		fc.record({ layer, points: fc.tuple(place), ...fields }).map((said) => itemSchema.parse(said));
	const added = fc.oneof(
		item({ kind: fc.constant('line'), points: fc.tuple(place, place) }),
		item({
			kind: fc.constant('polyline'),
			points: fc.array(place, { minLength: 2, maxLength: 6 }),
			closed: fc.boolean()
		}),
		item({ kind: fc.constant('circle'), radius: fc.integer({ min: 1, max: 500 }) }),
		item({
			kind: fc.constant('arc'),
			radius: fc.integer({ min: 1, max: 500 }),
			from: fc.integer({ min: 0, max: 179 }),
			to: fc.integer({ min: 180, max: 359 })
		}),
		item({ kind: fc.constant('text'), text: WORDS, height: fc.constant(250) })
	);
	const change = fc.nat(Math.max(0, base.entities.length - 1)).chain((at): fc.Arbitrary<[number, Change]> => {
		const entity = base.entities[at]!;
		const choices: fc.Arbitrary<Change>[] = [
			fc.constant({ removed: true }),
			layer.map((name) => ({ layer: name }))
		];
		if (movable(entity.type)) choices.push(place.map((move) => ({ move })));
		if (hasWords(entity.type)) choices.push(WORDS.map((text) => ({ text })));
		if (attributesOf(entity).length) choices.push(WORDS.map((said) => ({ attributes: { '0': said } })));
		return fc.oneof(...choices).map((one) => [at, one]);
	});
	return fc.record({
		changes: fc.array(change, { maxLength: 30 }).map((list) => new Map(list)),
		items: fc
			.array(added, { maxLength: 20 })
			.map((list) => list.map((one, i): Item => ({ ...one, id: `item${i}` }))),
		layers: fc
			.subarray(layers, { maxLength: Math.min(2, layers.length) })
			.map((off) => new Map(off.map((name) => [name.toUpperCase(), { off: true }])))
	});
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
const title = {
	number: 'VFT-MW-LS-00-DR-0101',
	title: 'Linkspan',
	department: 'Marine works',
	revision: 'P02',
	date: '2026-11-26',
	drawn: 'Oke Lindvar'
};
const OURS = Object.fromEntries(
	DRAWING_KINDS.map((kind) => [`${kind}.dxf`, bytesOf(drawing(kind, { seed: kind, edit: 1 }, title))])
);

/** Drawings of others, out of packages that ship them: from R12 to AC1027, in several scripts, up to some megabytes. */
function realFiles(): Record<string, Uint8Array> {
	const packages = ['dxf2json@1.0.3', 'three-dxf@1.3.1'];
	const found: Record<string, Uint8Array> = {};
	for (const name of packages) {
		const folder = mkdtempSync(join(home, 'package-'));
		const packed = spawnSync('npm', ['pack', '--silent', name], { cwd: folder, encoding: 'utf8' });
		if (packed.status !== 0) throw new Error(`The package ${name} could not be fetched: ${packed.stderr}`);
		spawnSync('tar', ['-xf', packed.stdout.trim()], { cwd: folder });
		for (const path of readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((one) =>
			/\.dxf$/i.test(one)
		))
			found[`${name.split('@')[0]}-${basename(path)}`] = new Uint8Array(readFileSync(join(folder, path)));
	}
	return found;
}

/** How many entities of each kind there are. */
const counted = (entities: readonly { kind: string }[]) => {
	const counts: Record<string, number> = {};
	for (const { kind } of entities) counts[kind] = (counts[kind] ?? 0) + 1;
	return counts;
};

describe.each([
	['our own drawings', () => OURS],
	['drawings of others', realFiles]
])('%s', (_, files) => {
	const bases = files();
	const before = seenIn(bases);
	const edited = Object.entries(bases).map(([name, bytes], i) => {
		const base = readDxf(decodeDxf(bytes));
		const [made] = fc.sample(anyEdits(base), { numRuns: 1, seed: 40 + i });
		return { name, bytes, base, made: made! };
	});

	it('stay byte for byte when nothing was changed', () => {
		expect(Object.keys(bases).length).toBeGreaterThan(0);
		for (const { name, bytes } of edited)
			expect(Buffer.compare(writeEdited(bytes, NO_EDITS), bytes), name).toBe(0);
	});

	it('are opened by ezdxf after any edits, with no fault that was not there', () => {
		const after = seenIn(
			Object.fromEntries(edited.map(({ name, bytes, made }) => [`edited-${name}`, writeEdited(bytes, made)]))
		);
		for (const { name, base, made } of edited) {
			const [was, is] = [before.get(name)!, after.get(`edited-${name}`)!];
			for (const fault of is.faults) expect(was.faults, `${name}: ${fault}`).toContain(fault);
			// Every circle, arc and text that was added is there, on its layer and in its place.
			for (const item of made.items) {
				if (item.kind === 'polyline') continue;
				const kind = item.kind.toUpperCase();
				const found = is.entities.some(
					(e) =>
						e.kind === kind &&
						e.layer.toUpperCase() === item.layer.toUpperCase() &&
						item.points[0]!.every((xy, i) => Math.abs(e.at[i]! - xy) < 1e-6) &&
						(item.text === undefined || e.words === item.text)
				);
				expect(found, `${name}: ${kind} at ${item.points[0]!.join()}`).toBe(true);
			}
			// What was removed is gone, and nothing else is.
			const counts = counted(was.entities);
			const model = counted(is.entities);
			const gone = [...made.changes].filter(([, change]) => change.removed);
			const total = (all: Record<string, number>) => Object.values(all).reduce((sum, n) => sum + n, 0);
			expect(total(model)).toBeGreaterThanOrEqual(total(counts) - gone.length + made.items.length);
			expect(total(model)).toBeLessThanOrEqual(total(counts) + made.items.length);
			// New words are read as they were typed.
			for (const [at, change] of made.changes)
				if (change.text !== undefined && !change.removed) {
					const { type } = base.entities[at]!;
					expect(
						is.entities.some((e) => e.kind === type && e.words === change.text),
						`${name}: ${type}`
					).toBe(true);
				}
			for (const layer of made.layers.keys()) expect(is.off.map((one) => one.toUpperCase())).toContain(layer);
		}
	});

	it('say the same to our own reader when they come back', () => {
		for (const { name, bytes, base, made } of edited) {
			const back = readDxf(decodeDxf(writeEdited(bytes, made)));
			const kept = base.entities.filter((_, at) => !made.changes.get(at)?.removed);
			expect(back.entities.length, name).toBe(kept.length + made.items.length);
			let next = 0;
			for (const [at, entity] of base.entities.entries()) {
				const change = made.changes.get(at);
				if (change?.removed) continue;
				const is = back.entities[next++]!;
				expect(is.type, name).toBe(entity.type);
				if (!change) expect(is, name).toEqual(entity);
				else if (change.text !== undefined) expect(wordsOf(is), name).toBe(change.text);
			}
		}
	});
});
