import { describe, expect, it } from 'vitest';
import { DrawingSide } from '../core/compare/drawing-side';
import { compareDrawings } from '../core/compare/drawings';
import { readDxf } from '../core/dxf/read';
import { answerOn, askedOn } from './drawing-port';

/** A drawing of some lines on a layer, words in a block that is put in, and a word on a sheet of its own. */
function drawing(lines: number, words: string, sheet: string): DrawingSide {
	const line = (i: number) => `0\nLINE\n5\n${i + 16}\n8\nSTEEL\n10\n${i}\n20\n0\n11\n${i}\n21\n9\n`;
	return new DrawingSide(
		readDxf(
			[
				`0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nMARK\n10\n0\n20\n0\n0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n2\n1\n${words}\n`,
				'0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n',
				...Array.from({ length: lines }, (_, i) => line(i)),
				'0\nINSERT\n5\n1\n8\nNOTES\n2\nMARK\n10\n4\n20\n4\n',
				`0\nTEXT\n5\n2\n67\n1\n8\nFRAME\n10\n1\n20\n1\n40\n3\n1\n${sheet}\n`,
				'0\nENDSEC\n0\nEOF\n'
			].join('')
		)
	);
}

describe('two drawings in workers of their own', () => {
	it('are compared over a port as they are side by side', async () => {
		const [before, after] = [drawing(4, 'P01', 'Issue 1'), drawing(6, 'P02', 'Issue 2')];
		const { port1, port2 } = new MessageChannel();
		answerOn(port1, before);
		const found = await compareDrawings(askedOn(port2), after);
		port1.close();
		expect(found).toEqual(await compareDrawings(before, after));
		expect(found.map(({ page, type, kind }) => [page, type, kind])).toEqual([
			[1, 'INSERT', 'edited'],
			[1, 'LINE', 'added'],
			[1, 'LINE', 'added'],
			[2, 'TEXT', 'edited']
		]);
	});

	it('say that they cannot be compared when one of them fails', async () => {
		const broken = drawing(1, 'P01', 'Issue 1');
		broken.readings = () => {
			throw new RangeError('out of memory');
		};
		const { port1, port2 } = new MessageChannel();
		answerOn(port1, broken);
		await expect(compareDrawings(askedOn(port2), drawing(1, 'P01', 'Issue 1'))).rejects.toThrow(
			'The older drawing cannot be taken apart.'
		);
		port1.close();
	});
});
