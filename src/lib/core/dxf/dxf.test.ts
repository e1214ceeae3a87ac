import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hatchLines, polyline } from './curves';
import { decodeDxf, DxfError, looksLikeDxf, readDxf } from './read';
import { indexColour } from './colours';
import { flatten } from './flatten';
import { multilineText } from './texts';
import { sheetToSvg } from './svg';
import { titleBlock } from './title-block';

const pairs = (...values: (string | number)[]) => values.join('\n') + '\n';
const entities = (...values: (string | number)[]) =>
	pairs(0, 'SECTION', 2, 'ENTITIES', ...values, 0, 'ENDSEC', 0, 'EOF');
const sheetOf = (text: string) => flatten(readDxf(text));

describe('reading DXF', () => {
	it('recognises drawings by their first groups', () => {
		const bytes = (s: string) => new TextEncoder().encode(s);
		expect(looksLikeDxf(bytes('  0\r\nSECTION\r\n  2\r\nHEADER\r\n'))).toBe(true);
		expect(looksLikeDxf(bytes('999\nmade by hand\n0\nSECTION\n'))).toBe(true);
		expect(looksLikeDxf(bytes('%PDF-1.7'))).toBe(false);
	});

	it('says what is wrong with a file that is none or breaks off', () => {
		expect(() => readDxf('hello\nworld\n')).toThrow(DxfError);
		expect(() => readDxf(pairs(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER'))).toThrow(/breaks off/);
	});

	it('decodes old drawings by their code page', () => {
		const head = pairs(
			0,
			'SECTION',
			2,
			'HEADER',
			9,
			'$ACADVER',
			1,
			'AC1015',
			9,
			'$DWGCODEPAGE',
			3,
			'ANSI_1252'
		);
		const bytes = new Uint8Array([...new TextEncoder().encode(head), 0xe4]);
		expect(decodeDxf(bytes).endsWith('ä')).toBe(true);
	});

	it('keeps how wide letters are and how far they lean, within what can be read', () => {
		const text = (...more: (string | number)[]) =>
			sheetOf(entities(0, 'TEXT', 8, 'A', 10, 0, 20, 0, 40, 2, 1, 'word', ...more)).texts[0]!;
		expect(text()).toMatchObject({ wide: 1, slant: 0 });
		expect(text(41, 0.7, 51, 15)).toMatchObject({ wide: 0.7, slant: Math.PI / 12 });
		expect(text(41, 0.7, 51, 345).slant).toBeCloseTo(-Math.PI / 12);
		expect(text(41, 0, 51, 90)).toMatchObject({ wide: 1, slant: 0 });
		expect(
			sheetToSvg(sheetOf(entities(0, 'TEXT', 8, 'A', 10, 0, 20, 0, 40, 20, 41, 0.5, 1, 'w')), 400)
		).toContain('matrix(0.5 0');
	});

	it('shows leaders of the newer kind with their lines and text', () => {
		const sheet = sheetOf(
			entities(
				...[0, 'MULTILEADER', 8, 'NOTES', 300, 'CONTEXT_DATA{', 41, 2.5, 304, 'Weld \\P6 mm', 12, 30, 22, 41],
				...[42, 0, 302, 'LEADER{', 10, 20, 20, 40, 304, 'LEADER_LINE{', 10, 1, 20, 2, 10, 5, 20, 9, 305, '}'],
				...[303, '}', 301, '}']
			)
		);
		expect(sheet.strokes.map((s) => [...s.points])).toEqual([[1, 2, 5, 9, 20, 40]]);
		expect(sheet.texts.map((t) => [t.text, t.x, t.y])).toEqual([
			['Weld', 30, 41],
			['6 mm', 30, 37]
		]);
		expect(sheet.unknown).toEqual({});
	});

	it('never does anything but read or refuse, whatever the text', () => {
		const group = fc.tuple(
			fc.constantFrom(0, 2, 8, 10, 20, 11, 21, 40, 41, 42, 50, 62, 70, 71, 72, 91, 92, 93),
			fc.oneof(
				fc.constantFrom('SECTION', 'ENTITIES', 'ENDSEC', 'LINE', 'HATCH', 'INSERT', 'SPLINE', 'MTEXT', 'A'),
				fc.double().map(String)
			)
		);
		fc.assert(
			fc.property(fc.array(group, { maxLength: 60 }), (groups) => {
				const text = entities(...groups.flat());
				try {
					sheetToSvg(sheetOf(text), 400);
				} catch (error) {
					expect(error).toBeInstanceOf(DxfError);
				}
			}),
			{ numRuns: 500 }
		);
	});
});

describe('flattening', () => {
	it('gives a line on its layer with its colour', () => {
		const sheet = sheetOf(entities(0, 'LINE', 8, 'WALL', 62, 1, 10, 0, 20, 0, 11, 100, 21, 50));
		expect([...sheet.strokes[0]!.points]).toEqual([0, 0, 100, 50]);
		expect(sheet.strokes[0]!.colour).toBe(0xff0000);
		expect(sheet.layers).toEqual([{ name: 'WALL', visible: true, items: 1 }]);
		expect(sheet.box).toEqual([0, 0, 100, 50]);
	});

	it('places blocks turned, scaled and in rows, with layer 0 taken from the insertion', () => {
		const text =
			pairs(
				0,
				'SECTION',
				2,
				'BLOCKS',
				0,
				'BLOCK',
				2,
				'PILE',
				10,
				1,
				20,
				0,
				0,
				'LINE',
				8,
				'0',
				10,
				1,
				20,
				0,
				11,
				2,
				21,
				0,
				0,
				'ENDBLK',
				0,
				'ENDSEC'
			) + entities(0, 'INSERT', 2, 'PILE', 8, 'PILES', 10, 10, 20, 20, 41, 2, 42, 2, 50, 90, 70, 3, 44, 5);
		const sheet = sheetOf(text);
		expect(sheet.strokes).toHaveLength(3);
		const ends = sheet.strokes.map((s) => [...s.points].map((v) => Math.round(v * 1e6) / 1e6));
		expect(ends[0]).toEqual([10, 20, 10, 22]);
		expect(ends[2]).toEqual([10, 30, 10, 32]);
		expect(sheet.layers[0]!.name).toBe('PILES');
	});

	it('ends with blocks that contain themselves', () => {
		const block = pairs(
			0,
			'SECTION',
			2,
			'BLOCKS',
			0,
			'BLOCK',
			2,
			'A',
			10,
			0,
			20,
			0,
			0,
			'INSERT',
			2,
			'A',
			10,
			1,
			20,
			0,
			0,
			'INSERT',
			2,
			'A',
			10,
			0,
			20,
			1,
			0,
			'ENDBLK',
			0,
			'ENDSEC'
		);
		const sheet = sheetOf(block + entities(0, 'INSERT', 2, 'A', 10, 0, 20, 0));
		expect(sheet.cut).toBe(true);
	});

	it('reads the title block from attributes', () => {
		const text = entities(
			0,
			'INSERT',
			2,
			'TITLE_A1',
			66,
			1,
			10,
			0,
			20,
			0,
			0,
			'ATTRIB',
			10,
			0,
			20,
			0,
			40,
			3,
			1,
			'VFT-MW-LS-00-DR-0101',
			2,
			'DRAWING_NUMBER',
			0,
			'ATTRIB',
			10,
			0,
			20,
			5,
			40,
			3,
			1,
			'P03.2',
			2,
			'REV',
			0,
			'SEQEND',
			0,
			'LINE',
			10,
			0,
			20,
			0,
			11,
			1,
			21,
			1
		);
		const sheet = sheetOf(text);
		expect(titleBlock(sheet.attributes)).toMatchObject({
			number: 'VFT-MW-LS-00-DR-0101',
			revision: 'P03.2',
			title: null
		});
		expect(sheet.texts).toHaveLength(2);
		expect(sheet.strokes).toHaveLength(1);
	});

	it('follows a half circle of a bulge', () => {
		const points = polyline(
			[
				[0, 0],
				[10, 0]
			],
			[1],
			false
		);
		const lowest = Math.min(...points.map((p) => p[1]));
		expect(lowest).toBeCloseTo(-5, 1);
		expect(points.at(-1)).toEqual([10, 0]);
	});

	it('hatches inside a loop and leaves its hole free', () => {
		const square = (a: number, b: number): [number, number][] => [
			[a, a],
			[b, a],
			[b, b],
			[a, b]
		];
		const lines = hatchLines([square(0, 10), square(4, 6)], 0, 1, 100);
		const at5 = lines!.filter(([a]) => Math.abs(a[1] - 5) < 1e-9);
		expect(at5.map(([a, b]) => [a[0], b[0]])).toEqual([
			[0, 4],
			[6, 10]
		]);
	});

	it('takes codes out of texts', () => {
		expect(multilineText('{\\fArial|b0;Slab %%p5}\\PLevel \\H2.5x;+3.40 \\{a\\}')).toEqual([
			'Slab ±5',
			'Level +3.40 {a}'
		]);
	});

	it('shows ink for colour 7 and never markup from a text', () => {
		expect(indexColour(7)).toBe(-1);
		const svg = sheetToSvg(
			sheetOf(
				entities(
					0,
					'TEXT',
					10,
					0,
					20,
					0,
					40,
					5,
					1,
					'<script>x</script>',
					0,
					'LINE',
					10,
					0,
					20,
					0,
					11,
					50,
					21,
					50
				)
			),
			300
		);
		expect(svg).not.toContain('<script');
	});
});
