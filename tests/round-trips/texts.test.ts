// @vitest-environment jsdom
import fc from 'fast-check';
import type { Node } from 'prosemirror-model';
import { describe, expect, it } from 'vitest';
import { lossesOf, type TextFormat } from '../../src/lib/core/text/losses';
import { textSchema } from '../../src/lib/core/text/schema';
import { anyText, block } from './any-text';
import { broughtIn, shown, written } from './text-files';

const roundTrip = async (text: Node, format: TextFormat) => broughtIn(await written(text, format), format);

describe('a live text that is taken as a file and brought in again', () => {
	for (const format of ['html', 'odt', 'docx'] as const)
		it(`is the same as ${format}`, async () => {
			await fc.assert(
				fc.asyncProperty(anyText, async (held) => {
					expect(shown(await roundTrip(held, format))).toEqual(shown(held));
				}),
				{ numRuns: 25 }
			);
		}, 60_000);

	it('is the same as Markdown, as far as lossesOf does not say otherwise', async () => {
		await fc.assert(
			fc.asyncProperty(
				anyText.filter((held) => lossesOf(held, 'md').length === 0),
				async (held) => {
					expect(shown(await roundTrip(held, 'md'))).toEqual(shown(held));
				}
			),
			{ numRuns: 50 }
		);
	}, 60_000);

	it('keeps cells that reach over others, and cells that head their row', async () => {
		const head = (said: string, attrs = {}) =>
			block('table_header', attrs, [block('paragraph', null, [textSchema.text(said)])]);
		const plain = (said: string, attrs = {}) =>
			block('table_cell', attrs, [block('paragraph', null, [textSchema.text(said)])]);
		const row = (...cells: Node[]) => block('table_row', null, cells);
		const spanning = block('table', null, [
			row(head('Grade', { colspan: 2 }), head('Use')),
			row(plain('S355', { rowspan: 2 }), plain('J2'), plain('deck')),
			row(plain('K2'), plain('hinge pin'))
		]);
		const sided = block('table', null, [
			row(head('Class'), plain('C35/45')),
			row(head('Cover'), plain('55 mm'))
		]);
		for (const format of ['html', 'odt', 'docx'] as const)
			expect(shown(await roundTrip(block('doc', null, [spanning]), format))).toEqual([spanning.toJSON()]);
		const said = (format: TextFormat, table: Node) => lossesOf(block('doc', null, [table]), format);
		expect(said('docx', sided)).toEqual([
			'Cells that head their row, and not their column, become plain cells.'
		]);
		expect([said('docx', spanning), said('odt', sided), said('html', sided)]).toEqual([[], [], []]);
		for (const format of ['html', 'odt'] as const)
			expect(shown(await roundTrip(block('doc', null, [sided]), format))).toEqual([sided.toJSON()]);
	});
});
