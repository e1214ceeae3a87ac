import axe from 'axe-core';
import { createRawSnippet, flushSync, mount, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { known, PURPOSES } from '../../src/routes/kit/examples';
import { CallError } from '../../src/lib/client/call';
import Avatar from '../../src/lib/ui/kit/Avatar.svelte';
import Combobox from '../../src/lib/ui/kit/Combobox.svelte';
import ConfirmDialog from '../../src/lib/ui/kit/ConfirmDialog.svelte';
import CopyLine from '../../src/lib/ui/kit/CopyLine.svelte';
import DateField from '../../src/lib/ui/kit/DateField.svelte';
import DateTimeField from '../../src/lib/ui/kit/DateTimeField.svelte';
import Dialog from '../../src/lib/ui/kit/Dialog.svelte';
import Field from '../../src/lib/ui/kit/Field.svelte';
import Form from '../../src/lib/ui/kit/Form.svelte';
import PersonPicker from '../../src/lib/ui/kit/PersonPicker.svelte';
import ReasonDialog from '../../src/lib/ui/kit/ReasonDialog.svelte';
import Select from '../../src/lib/ui/kit/Select.svelte';
import NumberForm from './NumberForm.svelte';

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

const PARTS: Record<string, [unknown, Record<string, unknown>]> = {
	Avatar: [Avatar, { name: 'Oke Lindvar' }],
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
	Field: [Field, { label: 'Number', name: 'number', value: 'VFT-0101', hint: 'As the rule says.' }],
	Form: [Form, { act: nothing, button: 'Change', children: says('Fields') }],
	PersonPicker: [PersonPicker, { label: 'Whom to let in', known, pick: nothing }],
	ReasonDialog: [
		ReasonDialog,
		{ open: true, title: 'Break the lock?', consequence: 'They are told.', button: 'Break', act: nothing }
	],
	Select: [Select, { label: 'Purpose', choices: PURPOSES, value: 'approval' }]
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
