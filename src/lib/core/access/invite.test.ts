import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readInvites, type Known } from './invite';

const TODAY = '2026-11-23';
const known: Known[] = [
	{ kind: 'everyone', id: 'p', name: 'Everyone in the project', people: 19 },
	{ kind: 'department', id: 'bs', name: 'Building services', code: 'BS', people: 3 },
	{ kind: 'group', id: 'dc', name: 'Design coordination', people: 5 },
	{ kind: 'person', id: 'petra', name: 'Petra Quill', email: 'petra@vennholm.example', people: 1 },
	{ kind: 'person', id: 'jose', name: 'José Álvarez', email: 'jose@vennholm.example', people: 1 },
	{ kind: 'person', id: 'a1', name: 'Ann Ash', email: 'ann1@vennholm.example', people: 1 },
	{ kind: 'person', id: 'a2', name: 'Ann Ash', email: 'ann2@vennholm.example', people: 1 }
];
const read = (text: string) => readInvites(text, known, 'view', TODAY);
const one = (text: string) => read(text)[0]!;

describe('a list of whom to let in', () => {
	it('takes names, codes, groups and mail addresses, each with its own level and last day', () => {
		const lines = read(
			'Building services, View\nPetra Quill, Remark\nb.hollin@tarnsteel.example, Download, 31 Dec\nDesign coordination\tWork\nBS; barred'
		);
		expect(lines.map((l) => [l.known?.id ?? l.fresh?.email, l.level, l.until, l.fault])).toEqual([
			['bs', 'view', null, null],
			['petra', 'remark', null, null],
			['b.hollin@tarnsteel.example', 'download', '2026-12-31', null],
			['dc', 'work', null, null],
			['bs', 'barred', null, 'The same as line 1. Each can be named once.']
		]);
	});

	it('presets the lowest level that serves (A7)', () => {
		expect(one('Petra Quill')).toMatchObject({ level: 'view', fault: null });
	});

	it.each([
		['Kaja Dorn <k.dorn@tarnsteel.example>, Download', 'Kaja Dorn', 'k.dorn@tarnsteel.example'],
		['"Dorn, Kaja" <K.Dorn@tarnsteel.example>, Download', 'Dorn Kaja', 'k.dorn@tarnsteel.example'],
		['k.dorn@tarnsteel.example, Download', 'K Dorn', 'k.dorn@tarnsteel.example']
	])('reads %s as a mail program or a sheet writes it', (text, name, email) => {
		expect(one(text)).toMatchObject({ fresh: { name, email }, level: 'download', fault: null });
	});

	it('knows people by their address however the name is written, and names without their accents', () => {
		expect(one('P. Quill <petra@vennholm.example>, Work').known?.id).toBe('petra');
		expect(one('jose  alvarez, Work').known?.id).toBe('jose');
	});

	it.each([
		['Nobody Atall, Work', 'Nobody here is called'],
		['b.hollin@, Download', 'not a mail address'],
		['Ann Ash, View', 'means 2 here'],
		['Petra Quill, Boss', 'neither a level'],
		['Petra Quill, Download, 2026-11-22', 'lies in the past'],
		['Petra Quill, Download, 31 Feb', 'neither a level']
	])('says what is wrong with %s', (text, fault) => {
		expect(one(text).fault).toContain(fault);
	});

	it('counts lines as the writer sees them, empty ones too', () => {
		expect(read('\n\nPetra Quill\n\nNobody').map((l) => l.line)).toEqual([3, 5]);
	});

	it('reads anything without failing, and never loses a line', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 300 }), (text) => {
				const filled = text.split(/\r?\n/).filter((l) => l.trim()).length;
				const lines = read(text);
				expect(lines).toHaveLength(filled);
				for (const l of lines) expect(l.known !== null || l.fresh !== null || l.fault !== null).toBe(true);
			})
		);
	});
});
