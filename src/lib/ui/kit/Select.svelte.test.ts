import { flushSync, mount, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import Select from './Select.svelte';

let shown: Record<string, unknown> | null = null;
afterEach(() => {
	if (shown) void unmount(shown);
	shown = null;
	document.body.innerHTML = '';
});

const CHOICES = [
	{ value: '', label: 'nobody in particular' },
	{ value: 'mw', label: 'Marine works', group: 'Departments' },
	{ value: 'maj', label: 'Maj Sund', group: 'People' }
];
/** The field in a form, as pages have it. */
function field(props: Record<string, unknown>) {
	const form = document.createElement('form');
	document.body.append(form);
	shown = mount(Select as never, { target: form, props: { choices: CHOICES, value: '', ...props } });
	flushSync();
	return { form, trigger: form.querySelector<HTMLButtonElement>('[role=combobox]')! };
}

describe('a field with one of a few', () => {
	it('says what is chosen, also where that is nothing in particular', () => {
		expect(field({ value: 'maj' }).trigger.textContent?.trim()).toBe('Maj Sund');
		document.body.innerHTML = '';
		expect(field({}).trigger.textContent?.trim()).toBe('nobody in particular');
	});

	it('says what to do where nothing is chosen yet', () => {
		const { trigger } = field({ choices: CHOICES.slice(1), placeholder: 'choose' });
		expect(trigger.textContent?.trim()).toBe('choose');
	});

	it('carries a name of its own for screen readers, and no other submits the form', () => {
		const { trigger } = field({ label: 'Who settles it' });
		expect(trigger.getAttribute('aria-label')).toBe('Who settles it');
		expect(trigger.type).toBe('button');
	});

	it('keeps a form from being sent while nothing is chosen, and is sent by its name', () => {
		const empty = field({ choices: CHOICES.slice(1), required: true, name: 'who' });
		expect(empty.form.checkValidity()).toBe(false);
		document.body.innerHTML = '';
		const chosen = field({ value: 'mw', required: true, name: 'who' });
		expect(chosen.form.checkValidity()).toBe(true);
		expect(new FormData(chosen.form).get('who')).toBe('mw');
	});

	it('shows what its caller makes of a choice, and not the choice itself', async () => {
		const choose = vi.fn();
		const { trigger } = field({ value: 'maj', choose });
		trigger.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
		await vi.waitFor(() => expect(document.querySelectorAll('[role=option]')).toHaveLength(3));
		const option = [...document.querySelectorAll<HTMLElement>('[role=option]')].find((one) =>
			one.textContent?.includes('Marine works')
		)!;
		option.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, pointerType: 'mouse' }));
		await vi.waitFor(() => expect(choose).toHaveBeenCalledWith('mw'));
		expect(trigger.textContent?.trim()).toBe('Maj Sund');
	});
});
