import axe from 'axe-core';
import { createRawSnippet, flushSync, mount, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { SvelteSet } from 'svelte/reactivity';
import { COLUMNS, FIGURES, known, PURPOSES, SHEETS } from '../../src/routes/kit/examples';
import { CallError } from '../../src/lib/client/call';
import Avatar from '../../src/lib/ui/kit/Avatar.svelte';
import Chart from '../../src/lib/ui/kit/Chart.svelte';
import { drawChart } from '../../src/lib/ui/kit/chart';
import Combobox from '../../src/lib/ui/kit/Combobox.svelte';
import ConfirmDialog from '../../src/lib/ui/kit/ConfirmDialog.svelte';
import CopyLine from '../../src/lib/ui/kit/CopyLine.svelte';
import DateField from '../../src/lib/ui/kit/DateField.svelte';
import DateTimeField from '../../src/lib/ui/kit/DateTimeField.svelte';
import Dialog from '../../src/lib/ui/kit/Dialog.svelte';
import Empty from '../../src/lib/ui/kit/Empty.svelte';
import Field from '../../src/lib/ui/kit/Field.svelte';
import FileField from '../../src/lib/ui/kit/FileField.svelte';
import Form from '../../src/lib/ui/kit/Form.svelte';
import Menu from '../../src/lib/ui/kit/Menu.svelte';
import { membersOf } from '../../src/lib/ui/kit/person';
import Narrowed from '../../src/lib/ui/kit/Narrowed.svelte';
import OrderedList from '../../src/lib/ui/kit/OrderedList.svelte';
import PersonPicker from '../../src/lib/ui/kit/PersonPicker.svelte';
import PlacePicker from '../../src/lib/ui/kit/PlacePicker.svelte';
import Progress from '../../src/lib/ui/kit/Progress.svelte';
import ReasonDialog from '../../src/lib/ui/kit/ReasonDialog.svelte';
import Select from '../../src/lib/ui/kit/Select.svelte';
import SuggestedInput from '../../src/lib/ui/kit/SuggestedInput.svelte';
import Table from '../../src/lib/ui/kit/Table.svelte';
import Tabs from '../../src/lib/ui/kit/Tabs.svelte';
import NumberForm from './NumberForm.svelte';
import PickerOfAway from './PickerOfAway.svelte';

const shown: Record<string, unknown>[] = [];
afterEach(() => {
	for (const one of shown.splice(0)) void unmount(one);
	document.body.innerHTML = '';
});
function show(component: unknown, props: Record<string, unknown>) {
	shown.push(mount(component as never, { target: document.body, props }));
	flushSync();
	return document.body;
}
const says = (words: string) => createRawSnippet(() => ({ render: () => `<p>${words}</p>` }));
const nothing = () => Promise.resolve();
const places = [
	{ id: 'mw', inside: ['mw'], way: 'Marine works' },
	{ id: 'ls', inside: ['mw', 'ls'], way: 'Marine works / Linkspan' },
	{ id: 'hy', inside: ['mw', 'ls', 'hy'], way: 'Marine works / Linkspan / Hydraulics' },
	{ id: 'qw', inside: ['mw', 'qw'], way: 'Marine works / Quay wall' }
];
vi.stubGlobal(
	'fetch',
	vi.fn(() => Promise.resolve(new Response(JSON.stringify({ folders: places }), { status: 200 })))
);
vi.stubGlobal(
	'ResizeObserver',
	class {
		observe() {}
		unobserve() {}
		disconnect() {}
	}
);

const MANY = Array.from({ length: 30 }, (_, i) => ({ name: `Sheet ${i}` }));
type Sheet = (typeof SHEETS)[number];
const PARTS: Record<string, [unknown, Record<string, unknown>]> = {
	Avatar: [Avatar, { name: 'Oke Lindvar' }],
	Chart: [Chart, { title: 'Issued', data: FIGURES }],
	Combobox: [Combobox, { label: 'Purpose', choices: PURPOSES, value: 'approval' }],
	ConfirmDialog: [
		ConfirmDialog,
		{
			asking: { title: 'Thaw it?', text: 'Everybody may change it.', button: 'Thaw', act: nothing },
			done: nothing
		}
	],
	CopyLine: [CopyLine, { label: 'Link', value: 'https://cupboard.example/pass/abcd' }],
	DateField: [DateField, { label: 'Until', value: '2026-11-27' }],
	DateTimeField: [
		DateTimeField,
		{ label: 'Expected end', day: '2026-11-27', time: '17:00', zone: 'Europe/Oslo' }
	],
	Dialog: [Dialog, { open: true, title: 'A dialog', children: says('What it is about.') }],
	Empty: [Empty, { children: says('Nothing has come in.') }],
	Field: [Field, { label: 'Number', name: 'number', value: 'VFT-0101', hint: 'As the rule says.' }],
	FileField: [FileField, { label: 'The file you worked on', file: undefined }],
	Form: [Form, { act: nothing, button: 'Change', children: says('Fields') }],
	Menu: [Menu, { label: 'Folder', groups: [[{ word: 'Rename…', act: nothing }]] }],
	Narrowed: [
		Narrowed,
		{ label: 'Sheets', items: MANY, children: createRawSnippet(() => ({ render: () => '<p>sheets</p>' })) }
	],
	OrderedList: [
		OrderedList,
		{
			label: 'Sheets',
			items: SHEETS.slice(0, 3).map((one) => ({ id: one.number, name: one.number })),
			row: createRawSnippet(() => ({ render: () => '<span>a sheet</span>' }))
		}
	],
	PersonPicker: [PersonPicker, { label: 'Whom to let in', known, pick: nothing }],
	PlacePicker: [PlacePicker, { label: 'To', project: 'VFT', place: null }],
	Progress: [Progress, { label: 'Sent', value: 64, max: 100 }],
	ReasonDialog: [
		ReasonDialog,
		{ open: true, title: 'Break the lock?', consequence: 'They are told.', button: 'Break', act: nothing }
	],
	Select: [Select, { label: 'Purpose', choices: PURPOSES, value: 'approval' }],
	SuggestedInput: [SuggestedInput, { label: 'Leaf', value: 'oak', suggestions: ['oak', 'steel'] }],
	Table: [
		Table,
		{
			label: 'Sheets',
			rows: SHEETS.slice(0, 3),
			key: (one: Sheet) => one.number,
			columns: COLUMNS,
			empty: 'No sheets.',
			selection: new SvelteSet<string>(),
			tickName: (one: Sheet) => `Tick ${one.number}`
		}
	],
	Tabs: [
		Tabs,
		{
			value: 'a',
			tabs: [
				{ value: 'a', word: 'Versions', panel: says('P01') },
				{ value: 'b', word: 'Trail', panel: says('Handed in') }
			]
		}
	]
};

describe('each part of the kit', () => {
	it.each(Object.entries(PARTS))(
		'%s holds to WCAG 2.2 AA in what can be told without drawing it',
		async (_, [part, props]) => {
			show(part, props);
			const { violations } = await axe.run(document.body, {
				rules: { region: { enabled: false }, 'color-contrast': { enabled: false } }
			});
			expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(' ')}`)).toEqual([]);
		}
	);
});

const type = (field: HTMLInputElement, words: string) => {
	field.value = words;
	field.dispatchEvent(new InputEvent('input', { bubbles: true }));
	flushSync();
};
const options = () => [...document.querySelectorAll<HTMLElement>('[role=option]')];
const said = (one: HTMLElement) => one.textContent!.replace(/\s+/g, ' ').trim();
const press = (one: HTMLElement) =>
	one.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, pointerType: 'mouse' }));

describe('somebody is picked', () => {
	it('by the beginnings of words, among people, departments and groups, and is told once; the field is empty again', async () => {
		const pick = vi.fn();
		const field = show(PersonPicker, { label: 'Who', known, pick }).querySelector<HTMLInputElement>(
			'[role=combobox]'
		)!;
		type(field, 'lind ok');
		await vi.waitFor(() => expect(options().map(said)).toEqual(['Oke Lindvar oke@vennholm.example']));
		press(options()[0]!);
		await vi.waitFor(() => expect(pick).toHaveBeenCalledExactlyOnceWith(known[0]));
		await vi.waitFor(() => expect(field.value).toBe(''));
		type(field, 'mar');
		await vi.waitFor(() =>
			expect(options().map(said)).toEqual([
				'Maren Aldgate maren@harbourtrust.example, outside',
				'Marine works 14 people'
			])
		);
		press(options()[1]!);
		await vi.waitFor(() => expect(pick).toHaveBeenLastCalledWith(known[3]));
	});

	it('by an address that nobody has, where newcomers may be; not by one that somebody has, nor by half of one', async () => {
		const pick = vi.fn();
		const field = show(PersonPicker, {
			label: 'Who',
			known,
			newcomers: true,
			pick
		}).querySelector<HTMLInputElement>('[role=combobox]')!;
		type(field, 'Sunn@tarn.example');
		await vi.waitFor(() => expect(options().map(said)).toEqual(['sunn@tarn.example new here']));
		press(options()[0]!);
		await vi.waitFor(() => expect(pick).toHaveBeenCalledExactlyOnceWith({ email: 'sunn@tarn.example' }));
		type(field, 'oke@vennholm.example');
		await vi.waitFor(() => expect(options()).toHaveLength(1));
		expect(said(options()[0]!)).toContain('Oke Lindvar');
		type(field, 'sunn@tarn');
		await vi.waitFor(() => expect(options()).toHaveLength(0));
		await vi.waitFor(() => expect(document.body.textContent).toContain('Nothing here is called that.'));
	});

	it('and stands in the field where one is meant, until another is, or nobody', async () => {
		const field = show(PersonPicker, {
			label: 'Who settles it',
			known,
			newcomers: true,
			nobody: 'nobody in particular'
		}).querySelector<HTMLInputElement>('[role=combobox]')!;
		expect(field.value).toBe('nobody in particular');
		type(field, 'oke');
		await vi.waitFor(() => expect(options()).toHaveLength(1));
		press(options()[0]!);
		await vi.waitFor(() => expect(field.value).toBe('Oke Lindvar'));
		type(field, 'sunn@tarn.example');
		await vi.waitFor(() => expect(options()).toHaveLength(1));
		press(options()[0]!);
		await vi.waitFor(() => expect(field.value).toBe('sunn@tarn.example'));
		type(field, 'nobody');
		await vi.waitFor(() => expect(options().map(said)).toEqual(['nobody in particular']));
		press(options()[0]!);
		await vi.waitFor(() => expect(field.value).toBe('nobody in particular'));
	});

	it('with what is to be known before: who has not come in, who is kept out', async () => {
		const members = membersOf([
			{ id: 'a', name: 'Ada Ferris', email: 'ada@x.example', outside: false, cameIn: false, blockedAt: null },
			{
				id: 'b',
				name: 'Bo Lunde',
				email: 'bo@x.example',
				outside: true,
				cameIn: true,
				blockedAt: '2026-11-01'
			},
			{
				id: 'b',
				name: 'Bo Lunde',
				email: 'bo@x.example',
				outside: true,
				cameIn: true,
				blockedAt: '2026-11-01'
			}
		]);
		const field = show(PersonPicker, { label: 'Who', known: members }).querySelector<HTMLInputElement>(
			'[role=combobox]'
		)!;
		field.click();
		await vi.waitFor(() =>
			expect(options().map(said)).toEqual([
				'Ada Ferris ada@x.example, not come in yet',
				'Bo Lunde bo@x.example, outside, kept out'
			])
		);
	});

	it('says of whoever is away until when, and who decides for them', async () => {
		const ada = { kind: 'person' as const, id: 'a', name: 'Ada Ferris', email: 'ada@x.example', people: 1 };
		const away = new Map([['a', 'away until 5 Dec, Bo Lunde decides']]);
		const props = { known: [ada, { ...ada, id: 'c', name: 'Cyra Holt', email: 'c@x.example' }], away };
		show(PickerOfAway, props).querySelector<HTMLInputElement>('[role=combobox]')!.click();
		await vi.waitFor(() =>
			expect(options().map(said)).toEqual([
				'Ada Ferris away until 5 Dec, Bo Lunde decides, ada@x.example',
				'Cyra Holt c@x.example'
			])
		);
	});
});

describe('a form', () => {
	const send = () => {
		document
			.querySelector('form')!
			.dispatchEvent(new SubmitEvent('submit', { bubbles: true, cancelable: true }));
		flushSync();
	};

	it('does its act once however often it is pressed, and can be sent again after a refusal', async () => {
		const answers: ((error?: Error) => void)[] = [];
		const act = vi.fn(
			() => new Promise<void>((done, fail) => answers.push((error) => (error ? fail(error) : done())))
		);
		const done = vi.fn();
		show(Form, { act, done, button: 'Change', children: says('Fields') });
		send();
		send();
		expect(act).toHaveBeenCalledOnce();
		answers[0]!(new CallError('conflict', 'Somebody was quicker.', {}));
		await vi.waitFor(() =>
			expect(document.querySelector('[role=alert]')?.textContent).toBe('Somebody was quicker.')
		);
		send();
		expect(act).toHaveBeenCalledTimes(2);
		expect(document.querySelector('[role=alert]')).toBeNull();
		answers[1]!();
		await vi.waitFor(() => expect(done).toHaveBeenCalledOnce());
	});

	it('says at its field what is wrong there, goes to it, and keeps what was typed', async () => {
		const act = () =>
			Promise.reject(new CallError('conflict', 'This number is taken already.', { field: 'number' }));
		show(NumberForm, { act });
		const field = document.querySelector<HTMLInputElement>('[data-field=number] input')!;
		type(field, 'VFT-0102');
		send();
		await vi.waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
		const told = document.getElementById(field.getAttribute('aria-describedby')!);
		expect(told?.textContent).toBe('This number is taken already.');
		expect(document.querySelectorAll('[role=alert]')).toHaveLength(1);
		expect(document.activeElement).toBe(field);
		expect(field.value).toBe('VFT-0102');
		expect(document.querySelector('[data-field=title] [aria-invalid=true]')).toBeNull();
	});

	it('says below what is wrong at a field that it does not have', async () => {
		show(NumberForm, {
			act: () => Promise.reject(new CallError('invalid', 'It ends too late.', { field: 'until' }))
		});
		send();
		await vi.waitFor(() =>
			expect(document.querySelector('form > [role=alert]')?.textContent).toBe('It ends too late.')
		);
	});
});

describe('a table', () => {
	const rows = [3, 1, 2, 4].map((n) => ({ number: `DR-${n}`, title: `Sheet ${5 - n}`, saves: n * 10 }));
	const table = (more: Record<string, unknown> = {}) => {
		show(Table, {
			label: 'Sheets',
			rows,
			key: (one: Sheet) => one.number,
			columns: COLUMNS,
			empty: 'No sheets. They come when somebody hands one in.',
			...more
		});
		return {
			first: () =>
				[...document.querySelectorAll<HTMLElement>('tbody tr[data-key]')].map((row) => row.dataset.key),
			head: (word: string) => {
				[...document.querySelectorAll('thead button')]
					.find((one) => one.textContent === word)!
					.dispatchEvent(new MouseEvent('click', { bubbles: true }));
				flushSync();
			},
			sorted: () => document.querySelector('th[aria-sort]')?.getAttribute('aria-sort'),
			box: (n: number) => document.querySelectorAll<HTMLInputElement>('tbody input[type=checkbox]')[n]!,
			row: (n: number) => document.querySelectorAll<HTMLElement>('tbody tr[data-key]')[n]!
		};
	};
	const key = (on: HTMLElement, name: string, more: KeyboardEventInit = {}) => {
		on.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true, ...more }));
		flushSync();
	};

	it('is put in order by a head: upward, downward, and as it came', () => {
		const { first, head, sorted } = table();
		expect(first()).toEqual(['DR-3', 'DR-1', 'DR-2', 'DR-4']);
		head('Number');
		expect([first(), sorted()]).toEqual([['DR-1', 'DR-2', 'DR-3', 'DR-4'], 'ascending']);
		head('Number');
		expect([first(), sorted()]).toEqual([['DR-4', 'DR-3', 'DR-2', 'DR-1'], 'descending']);
		head('Title');
		expect([first(), sorted()]).toEqual([['DR-4', 'DR-3', 'DR-2', 'DR-1'], 'ascending']);
		head('Title');
		head('Title');
		expect([first(), sorted()]).toEqual([['DR-3', 'DR-1', 'DR-2', 'DR-4'], undefined]);
	});

	it('whose rows come in their order asks for another one, and counts a group by what is not here, too', () => {
		const asked: unknown[] = [];
		const { first, head } = table({
			served: { order: { column: 'number', down: true }, change: (order: unknown) => asked.push(order) },
			group: (one: Sheet) => (one.number < 'DR-3' ? 'Below' : 'Above'),
			groupCount: (name: string) => (name === 'Below' ? 1_234 : 2)
		});
		expect(first()).toEqual(['DR-3', 'DR-4', 'DR-1', 'DR-2']);
		head('Number');
		head('Title');
		expect(asked).toEqual([null, { column: 'title', down: false }]);
		expect(first()).toEqual(['DR-3', 'DR-4', 'DR-1', 'DR-2']);
		expect(document.querySelector('tbody')!.textContent).toMatch(/Below\s*1,?234/);
	});

	it('ticks with Shift from the last one on, in the order it stands in, and leaves out what cannot be ticked', () => {
		const selection = new SvelteSet<string>();
		const { box, head } = table({
			selection,
			tickName: (one: Sheet) => (one.number === 'DR-2' ? null : `Tick ${one.number}`)
		});
		head('Number');
		box(0).click();
		flushSync();
		expect([...selection]).toEqual(['DR-1']);
		box(2).dispatchEvent(new MouseEvent('click', { bubbles: true, shiftKey: true }));
		flushSync();
		expect([...selection].sort()).toEqual(['DR-1', 'DR-3', 'DR-4']);
		box(1).dispatchEvent(new MouseEvent('click', { bubbles: true, shiftKey: true }));
		flushSync();
		expect([...selection]).toEqual(['DR-1']);
		document.querySelector<HTMLInputElement>('thead input')!.click();
		flushSync();
		expect(selection.size).toBe(3);
		document.querySelector<HTMLInputElement>('thead input')!.click();
		flushSync();
		expect(selection.size).toBe(0);
	});

	it('is gone through by the arrows, Space ticks and Enter opens; in a link they mean what they mean there', async () => {
		const selection = new SvelteSet<string>();
		const open = vi.fn();
		const { row } = table({ selection, tickName: (one: Sheet) => `Tick ${one.number}`, open });
		expect([0, 1, 2, 3].map((n) => row(n).tabIndex)).toEqual([0, -1, -1, -1]);
		row(0).focus();
		key(row(0), 'ArrowDown');
		await vi.waitFor(() => expect(document.activeElement).toBe(row(1)));
		key(row(1), ' ');
		expect([...selection]).toEqual(['DR-1']);
		key(row(1), 'End');
		await vi.waitFor(() => expect(document.activeElement).toBe(row(3)));
		expect(row(3).tabIndex).toBe(0);
		key(row(3), 'Enter');
		expect(open).toHaveBeenCalledExactlyOnceWith(rows[3]);
		key(row(3).querySelector('input')!, 'Enter');
		key(row(3), 'Enter', { ctrlKey: true });
		expect(open).toHaveBeenCalledOnce();
	});

	it('keeps the rows of a group together under its head, also when they are sorted and gone through', async () => {
		const { first, head, row } = table({
			group: (one: Sheet) => (one.saves > 20 ? 'Many saves' : 'Few saves'),
			open: vi.fn()
		});
		const heads = () => [...document.querySelectorAll('tbody th')].map((one) => one.textContent);
		expect([heads(), first()]).toEqual([
			['Many saves 2', 'Few saves 2'],
			['DR-3', 'DR-4', 'DR-1', 'DR-2']
		]);
		head('Number');
		expect([heads(), first()]).toEqual([
			['Few saves 2', 'Many saves 2'],
			['DR-1', 'DR-2', 'DR-3', 'DR-4']
		]);
		row(1).focus();
		key(row(1), 'ArrowDown');
		await vi.waitFor(() => expect(document.activeElement).toBe(row(2)));
	});

	it('says what will stand there when there is nothing', () => {
		table({ rows: [] });
		expect(document.querySelector('tbody')!.textContent).toBe(
			'No sheets. They come when somebody hands one in.'
		);
	});

	it('of a thousand rows draws those in sight, and says how many there are', async () => {
		const high = vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(340);
		try {
			const { first } = table({ rows: SHEETS, fills: true });
			await vi.waitFor(() => expect(first().length).toBeGreaterThan(5));
			expect(first().length).toBeLessThan(60);
			expect(document.querySelector('table')!.getAttribute('aria-rowcount')).toBe('1001');
		} finally {
			high.mockRestore();
		}
	});
});

describe('a menu', () => {
	const items = () => [...document.querySelectorAll<HTMLElement>('[role^=menuitem]')];
	const open = async () => {
		document
			.querySelector('button')!
			.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, button: 0, pointerType: 'mouse' }));
		await vi.waitFor(() => expect(items().length).toBeGreaterThan(0));
	};

	it('leaves out what is false, and says of what may not be done why', async () => {
		const act = vi.fn();
		show(Menu, {
			label: 'Folder',
			groups: [
				[{ word: 'Rename…', act }, false, { word: 'Freeze…', act, why: 'Only who manages it may.' }],
				null,
				[undefined]
			]
		});
		await open();
		expect(items().map(said)).toEqual(['Rename…', 'Freeze…Only who manages it may.']);
		expect(items()[1]!.getAttribute('aria-disabled')).toBe('true');
		expect(document.querySelectorAll('[role=separator]')).toHaveLength(0);
		press(items()[1]!);
		press(items()[0]!);
		await vi.waitFor(() => expect(act).toHaveBeenCalledOnce());
	});

	it('stays open while one ticks', async () => {
		const act = vi.fn();
		show(Menu, { label: 'Columns', groups: [[{ word: 'Size', act, ticked: true }]] });
		await open();
		expect(items()[0]!.getAttribute('aria-checked')).toBe('true');
		press(items()[0]!);
		await vi.waitFor(() => expect(act).toHaveBeenCalledOnce());
		expect(items()).toHaveLength(1);
	});
});

describe('a place is picked', () => {
	it('by the names on the way to it; nothing goes into itself', async () => {
		const picked = vi.fn();
		const field = show(PlacePicker, {
			label: 'To',
			project: 'VFT',
			place: null,
			without: ['ls'],
			picked
		}).querySelector<HTMLInputElement>('[role=combobox]')!;
		field.click();
		await vi.waitFor(() => expect(options().map(said)).toEqual(['Marine works', 'Marine works / Quay wall']));
		type(field, 'quay');
		await vi.waitFor(() => expect(options()).toHaveLength(1));
		press(options()[0]!);
		await vi.waitFor(() =>
			expect(picked).toHaveBeenCalledExactlyOnceWith({ id: 'qw', name: 'Marine works / Quay wall' })
		);
	});
});

describe('a chart', () => {
	it('is drawn as SVG, and its figures stand in a table', () => {
		const element = document.body.appendChild(document.createElement('div'));
		const { redraw, end } = drawChart(element, FIGURES);
		expect(element.querySelectorAll('svg path').length).toBeGreaterThan(3);
		expect(element.textContent).toContain('planned');
		redraw({ ...FIGURES, series: [{ name: 'returned', values: [1, 2, 3, 4, 5] }] });
		expect(element.textContent).toContain('returned');
		expect(element.textContent).not.toContain('planned');
		end();
		expect(element.innerHTML).toBe('');
		show(Chart, { title: 'Issued', data: FIGURES });
		const cells = [...document.querySelectorAll('table[aria-label=Issued] tbody tr')].map((row) =>
			[...row.children].map((cell) => cell.textContent)
		);
		expect(cells[0]).toEqual(['Aug', '4', '3', '']);
		expect(cells[3]).toEqual(['Nov', '31', '24', '24']);
	});
});
