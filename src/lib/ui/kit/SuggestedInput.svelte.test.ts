import { flushSync, mount, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import SuggestedInput from './SuggestedInput.svelte';

vi.stubGlobal(
	'ResizeObserver',
	class {
		observe() {}
		unobserve() {}
		disconnect() {}
	}
);
HTMLElement.prototype.scrollIntoView = () => {};

let shown: Record<string, unknown>;
/** The keys that were passed on, with what stood in the field by then. */
let passed: [string, string][];
let field: HTMLInputElement;
beforeEach(() => {
	passed = [];
	let value = $state('oak');
	shown = mount(SuggestedInput as never, {
		target: document.body,
		props: {
			label: 'Leaf',
			suggestions: ['oak', 'steel', 'steel, fire 30'],
			get value() {
				return value;
			},
			set value(next: string) {
				value = next;
			},
			onkeydown: (event: KeyboardEvent) => passed.push([event.key, value])
		}
	});
	flushSync();
	field = document.querySelector('input')!;
});
afterEach(() => {
	void unmount(shown);
	document.body.innerHTML = '';
});

const options = () =>
	[...document.querySelectorAll('[role=option]')].map((one) => one.getAttribute('data-value'));
function key(name: string) {
	field.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }));
	flushSync();
}
function type(text: string) {
	field.value = text;
	field.dispatchEvent(new Event('input', { bubbles: true }));
	flushSync();
}
const lit = () => document.querySelector('[role=option][data-highlighted]')?.getAttribute('data-value');

describe('a field that suggests', () => {
	it('shows everything that is usually put there, until something is typed', async () => {
		field.focus();
		await vi.waitFor(() => expect(options()).toEqual(['oak', 'steel', 'steel, fire 30']));
		type('fi');
		await vi.waitFor(() => expect(options()).toEqual(['fi', 'steel, fire 30']));
	});

	it('keeps what was typed, whatever it suggests', async () => {
		type('st');
		await vi.waitFor(() => expect(lit()).toBe('st'));
		key('Enter');
		expect(passed).toEqual([['Enter', 'st']]);
	});

	it('takes what one went down to, with Enter and with Tab', async () => {
		type('st');
		await vi.waitFor(() => expect(lit()).toBe('st'));
		key('ArrowDown');
		await vi.waitFor(() => expect(lit()).toBe('steel'));
		key('Tab');
		expect(passed).toEqual([['Tab', 'steel']]);
		expect(field.value).toBe('steel');
	});

	it('passes on keys that are not the list’s, and keeps the arrows', () => {
		key('ArrowDown');
		key('Escape');
		expect(passed).toEqual([['Escape', 'oak']]);
	});
});
