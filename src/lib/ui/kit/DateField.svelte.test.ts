import { flushSync, mount, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import DateField from './DateField.svelte';
import DateTimeField from './DateTimeField.svelte';

let shown: Record<string, unknown> | null = null;
beforeEach(() => {
	vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-27T12:00:00Z') });
});
afterEach(() => {
	vi.useRealTimers();
	if (shown) void unmount(shown);
	shown = null;
	document.body.innerHTML = '';
});

function inForm(component: unknown, props: Record<string, unknown>) {
	const form = document.createElement('form');
	document.body.append(form);
	shown = mount(component as never, { target: form, props });
	flushSync();
	return form;
}
function type(field: HTMLInputElement, text: string, leave = true) {
	field.value = text;
	field.dispatchEvent(new Event('input', { bubbles: true }));
	flushSync();
	if (leave) field.dispatchEvent(new Event('blur'));
	flushSync();
}
const field = (form: HTMLFormElement) => form.querySelector<HTMLInputElement>('input')!;

describe('a day in a field', () => {
	it('stands under its label as people write it, without the year when it is this one’s', () => {
		const form = inForm(DateField, { label: 'Until', value: '2026-12-03' });
		expect(field(form).value).toBe('3 Dec');
		expect(form.querySelector('label')!.htmlFor).toBe(field(form).id);
	});

	it('is taken as people type it, and settles to how it is written', () => {
		const props = $state({ label: 'Until', value: '' });
		const form = inForm(DateField, {
			label: 'Until',
			get value() {
				return props.value;
			},
			set value(day: string) {
				props.value = day;
			}
		});
		type(field(form), '2027-06-30', false);
		expect(props.value).toBe('2027-06-30');
		expect(field(form).value).toBe('2027-06-30');
		field(form).dispatchEvent(new Event('blur'));
		flushSync();
		expect(field(form).value).toBe('30 Jun 2027');
		type(field(form), '');
		expect(props.value).toBe('');
	});

	it('keeps what is no day, says so at the field, and keeps the form from being sent', () => {
		const form = inForm(DateField, { label: 'Until', value: '2026-12-03' });
		type(field(form), '31 Nov');
		expect(field(form).value).toBe('31 Nov');
		expect(field(form).validationMessage).toBe('Write a day, such as 27 Nov or 2026-11-27.');
		expect(form.checkValidity()).toBe(false);
		type(field(form), '30 Nov');
		expect(form.checkValidity()).toBe(true);
	});

	it('asks for a day that is not too early, and for one at all where it must', () => {
		const form = inForm(DateField, {
			label: 'Until',
			value: '2026-11-20',
			min: '2026-11-27',
			required: true
		});
		expect(field(form).validationMessage).toBe('Choose 27 Nov or later.');
		type(field(form), '');
		expect(form.checkValidity()).toBe(false);
	});

	it('tells a caller who only wants to know, once it is settled', () => {
		const choose = vi.fn();
		const form = inForm(DateField, { label: 'From', value: '', choose });
		type(field(form), '1 Nov', false);
		expect(choose).not.toHaveBeenCalled();
		field(form).dispatchEvent(new Event('blur'));
		expect(choose).toHaveBeenCalledExactlyOnceWith('2026-11-01');
	});
});

describe('a day with a time', () => {
	it('names its time zone, and refuses what is no time', () => {
		const form = inForm(DateTimeField, {
			label: 'Expected end',
			day: '2026-11-27',
			time: '17:00',
			zone: 'Europe/Stockholm'
		});
		expect(form.textContent).toContain('Europe/Stockholm time');
		const time = form.querySelector<HTMLInputElement>('[aria-label="Expected end: time"]')!;
		type(time, '25:00');
		expect(time.validationMessage).toBe('Write a time, such as 17:00.');
		type(time, '730');
		expect(time.validationMessage).toBe('');
		expect(time.value).toBe('07:30');
	});
});
