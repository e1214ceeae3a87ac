import { describe, expect, it } from 'vitest';
import { titleBlockOf as read } from '../dxf/pages';
import { withTitleBlock } from './title-block';

const lines = (...all: (string | number)[]) => all.join('\r\n') + '\r\n';
/** An insertion of a block with attributes, by their tags. */
const block = (name: string, attributes: Record<string, string>) =>
	lines('  0', 'INSERT', '  8', '0', ' 66', 1, '  2', name, ' 10', '0', ' 20', '0') +
	Object.entries(attributes)
		.map(([tag, value]) =>
			lines('  0', 'ATTRIB', '  8', '0', ' 10', 5, ' 20', 5, ' 40', 3, '  1', value, '  2', tag, ' 70', 0)
		)
		.join('') +
	lines('  0', 'SEQEND', '  8', '0');
const file = (...entities: string[]) =>
	new TextEncoder().encode(
		lines(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1021', 0, 'ENDSEC') +
			lines(999, 'a note that stays', 0, 'SECTION', 2, 'ENTITIES') +
			entities.join('') +
			lines(0, 'TEXT', 8, 0, 10, 0, 20, 0, 40, 3, 1, 'Länge P02', 0, 'ENDSEC', 0, 'EOF')
	);
const TO = { number: 'VFT-MW-LS-00-DR-0101', revision: 'P03' };
const write = (bytes: Uint8Array) => withTitleBlock(bytes, read(bytes), TO);

const SHEET = { TITLE: 'Linkspan', DRAWING_NO: 'VFT-MW-LS-00-DR-0102', REV: 'P02', SCALE: '1:50' };
const ROW = { REV: 'P02', DATE: '2026-11-03', BY: 'OL' };

describe('writing number and revision in the title block of a drawing', () => {
	it('they are read as they were written, and everything else stays byte for byte', () => {
		const before = file(block('SHEET', SHEET), block('PILE', { NO: '17' }));
		const made = write(before)!;
		expect(read(made)).toMatchObject({ ...TO, title: 'Linkspan', scale: '1:50' });
		const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
		expect(text(made)).toBe(
			text(before).replace(SHEET.DRAWING_NO, TO.number).replace(lines('  1', 'P02'), lines('  1', 'P03'))
		);
	});

	it('the rows of what changed, and the title blocks of other sheets, are left as they are', () => {
		const other = { ...SHEET, DRAWING_NO: 'VFT-MW-LS-00-DR-0199' };
		const made = write(file(block('SHEET', SHEET), block('CHANGE', ROW), block('SHEET', other)))!;
		expect(read(made)).toMatchObject(TO);
		const text = new TextDecoder().decode(made);
		expect(text).toContain(block('CHANGE', ROW));
		expect(text).toContain(block('SHEET', other));
	});

	it.each([
		['numbered symbols alone', file(block('PILE', { NO: '17' }), block('PILE', { NO: '18' }))],
		['no attributes at all', file()],
		['what says it already', file(block('SHEET', { ...SHEET, DRAWING_NO: TO.number, REV: TO.revision }))],
		[
			'a number in several lines',
			file(
				block('SHEET', SHEET).replaceAll(lines(' 70', 0), lines(' 70', 0, '101', 'Embedded Object', ' 70', 1))
			)
		]
	])('nothing is written in %s', (_, bytes) => {
		expect(write(bytes)).toBeNull();
	});

	it('an empty place for the revision is filled', () => {
		expect(read(write(file(block('SHEET', { ...SHEET, REV: '' })))!)).toMatchObject(TO);
	});
});
