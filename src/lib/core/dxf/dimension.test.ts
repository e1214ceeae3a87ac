import { describe, expect, it } from 'vitest';
import { drawnDimension } from './dimension';
import { readDxf, type Group } from './read';

const drawing = readDxf('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n');
const drawn = (...values: (string | number)[]) => {
	const groups: Group[] = [];
	for (let i = 0; i < values.length; i += 2) groups.push([Number(values[i]), String(values[i + 1])]);
	return drawnDimension(drawing, groups)!;
};
const rounded = (lines: number[][][]) =>
	lines.map((l) => l.map((p) => p.map((v) => Math.round(v * 100) / 100 + 0)));

describe('dimensions without a picture', () => {
	it('measures straight between two points, along a direction or from one to the other', () => {
		const turned = drawn(70, 0, 50, 90, 10, 20, 20, 0, 13, 0, 23, 0, 14, 5, 24, 12);
		expect(turned).toMatchObject({ text: '12', at: [20, expect.closeTo(6)] });
		expect(rounded(turned.lines)[2]).toEqual([
			[20, 0],
			[20, 12]
		]);
		expect(turned.turn).toBeCloseTo(Math.PI / 2);
		expect(drawn(70, 1, 10, 0, 20, 5, 13, 0, 23, 0, 14, 3, 24, 4).text).toBe('5');
	});

	it('measures radius and diameter', () => {
		expect(drawn(70, 4, 10, 0, 20, 0, 15, 3, 25, 4).text).toBe('R5');
		expect(drawn(70, 3, 10, 0, 20, 0, 15, 6, 25, 8).text).toBe('⌀10');
	});

	it('measures an angle on the side that its arc stands on', () => {
		const points = [15, 0, 25, 0, 13, 10, 23, 0, 14, 0, 24, 10];
		expect(drawn(70, 5, ...points, 10, 4, 20, 4).text).toBe('90°');
		expect(drawn(70, 5, ...points, 10, -4, 20, -4).text).toBe('270°');
		// Two lines that only meet when they are made longer.
		expect(drawn(70, 2, 13, 5, 23, 0, 14, 9, 24, 0, 15, 0, 25, 5, 10, 0, 20, 9, 16, 3, 26, 3).text).toBe(
			'90°'
		);
	});

	it('says what somebody wrote instead, with the measure where it is asked for', () => {
		const line = [70, 1, 10, 0, 20, 5, 13, 0, 23, 0, 14, 3, 24, 4];
		expect(drawn(...line, 1, '<> check').text).toBe('5 check');
		expect(drawn(...line, 1, 'as built').text).toBe('as built');
		expect(drawn(...line, 1, ' ').text).toBe('');
		expect(drawn(...line, 42, 5.004).text).toBe('5');
	});

	it('gives nothing for points that make no dimension', () => {
		expect(drawn(70, 2, 13, 0, 23, 0, 14, 1, 24, 0, 15, 0, 25, 1, 10, 1, 20, 1, 16, 3, 26, 3)).toBeNull();
	});
});
