import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readNewcomers } from './newcomers';

const departments = [
	{ id: 'mw', code: 'MW', name: 'Marine works' },
	{ id: 'st', code: 'ST', name: 'Structures' }
];
const read = (
	text: string,
	preset: Parameters<typeof readNewcomers>[2] = { department: null, role: 'member' }
) => readNewcomers(text, departments, preset, new Set(['ines@vennholm.example']), ['vennholm.example']);
const one = (text: string) => read(text)[0]!;

describe('a list of people who join', () => {
	it('is read as a sheet, a mail program or a hurried clerk writes it', () => {
		const lines = read(
			[
				'Oke Lindvar\toke@vennholm.example\tMarine works\tlead',
				'"Verrin, Tomas" <Tomas@vennholm.example>; ST',
				'rhosyn.hale@vennholm.example, mw',
				'',
				'Halla Brandt, halla@vennholm.example, document controller',
				'Bodil Hollin, b.hollin@tarnsteel.example'
			].join('\n')
		);
		expect(lines.map((l) => [l.line, l.name, l.email, l.department?.code ?? null, l.role, l.fault])).toEqual([
			[1, 'Oke Lindvar', 'oke@vennholm.example', 'MW', 'lead', null],
			[2, 'Verrin Tomas', 'tomas@vennholm.example', 'ST', 'member', null],
			[3, 'Rhosyn Hale', 'rhosyn.hale@vennholm.example', 'MW', 'member', null],
			[5, 'Halla Brandt', 'halla@vennholm.example', null, 'controller', null],
			[6, 'Bodil Hollin', 'b.hollin@tarnsteel.example', null, 'member', null]
		]);
		expect(lines.map((l) => l.outside)).toEqual([false, false, false, false, true]);
	});

	it('takes what is chosen beside it where a line says nothing, and not for people outside', () => {
		const [inside, other, outside] = read(
			'a@vennholm.example\nb@vennholm.example, ST, member\nc@tarnsteel.example',
			{ department: 'mw', role: 'lead' }
		);
		expect([inside!.department?.code, inside!.role]).toEqual(['MW', 'lead']);
		expect([other!.department?.code, other!.role]).toEqual(['ST', 'member']);
		expect([outside!.department, outside!.role, outside!.fault]).toEqual([null, 'member', null]);
	});

	it.each([
		['Oke Lindvar, MW', 'has no mail address'],
		['Ines, ines@vennholm.example', 'is in this project already'],
		['oke@vennholm.example, MW, ST', 'Two departments: MW and ST'],
		['oke@vennholm.example, lead', 'no department is named'],
		['b@tarnsteel.example, MW', 'comes from outside']
	])('says what is wrong with “%s”', (text, fault) => {
		expect(one(text).fault).toContain(fault);
	});

	it('says of a second line for the same address which was the first', () => {
		expect(read('a@vennholm.example\nA@vennholm.example').map((l) => l.fault)).toEqual([
			null,
			'The same as line 1. Each can be named once.'
		]);
	});

	it('gives a line for each that says anything, whatever is pasted', () => {
		fc.assert(
			fc.property(fc.array(fc.string()), (texts) => {
				const text = texts.join('\n');
				const lines = read(text);
				expect(lines.length).toBe(text.split(/\r?\n/).filter((line) => line.trim()).length);
				for (const line of lines) if (!line.fault) expect(line.email).toMatch(/@/);
			})
		);
	});
});
