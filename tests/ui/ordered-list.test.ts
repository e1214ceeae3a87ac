import { flushSync, mount, unmount } from 'svelte';
import { afterEach, expect, it } from 'vitest';
import SheetOrder from './SheetOrder.svelte';

let shown: Record<string, unknown> | null = null;
afterEach(() => {
	if (shown) void unmount(shown);
	document.body.innerHTML = '';
});

/** A list of some, and what is kept of its order. */
function show(...names: string[]) {
	shown = mount(SheetOrder, { target: document.body, props: { names } });
	flushSync();
	return () => document.getElementById('order')!.textContent;
}
const handle = (name: string) => document.querySelector<HTMLElement>(`[aria-label="Move ${name}"]`)!;
function press(name: string, key: string) {
	const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
	handle(name).dispatchEvent(event);
	flushSync();
	return event;
}

it('moves by the arrow keys as far as its ends, and says where a row stands', () => {
	const order = show('a', 'b', 'c');
	press('b', 'ArrowUp');
	expect(order()).toBe('bac');
	expect(document.querySelector('[role=status]')!.textContent).toBe('b is number 1 of 3.');
	press('b', 'ArrowUp');
	expect(order()).toBe('bac');
	press('b', 'End');
	expect(order()).toBe('acb');
	press('c', 'Home');
	expect(order()).toBe('cab');
	expect([...document.querySelectorAll('li b')].map((one) => one.textContent).join('')).toBe('cab');
});

it('takes a row to the place that is typed, no farther than its ends; what is no place changes nothing', () => {
	const order = show('a', 'b', 'c');
	const type = (name: string, place: string) => {
		const field = document.querySelector<HTMLInputElement>(`[aria-label="Place of ${name}"]`)!;
		field.value = place;
		field.dispatchEvent(new Event('change', { bubbles: true }));
		flushSync();
		return field.value;
	};
	expect(type('c', '2')).toBe('2');
	expect(order()).toBe('acb');
	type('a', '99');
	expect(order()).toBe('cba');
	type('a', '0');
	expect(order()).toBe('acb');
	for (const wrong of ['', 'x', '1.5', '-1']) expect(type('b', wrong)).toBe('3');
	expect(order()).toBe('acb');
});

it('keeps the keys that move for itself, and leaves Tab and Escape to the page', () => {
	const order = show('a', 'b');
	const heard: string[] = [];
	document.addEventListener('keydown', ({ key }) => heard.push(key));
	for (const key of ['ArrowDown', ' ', 'Enter', 'Escape', 'Tab']) press('a', key);
	expect(heard).toEqual(['Escape', 'Tab']);
	expect(order()).toBe('ba');
});

it('shows some of many, finds the others by their words, and puts them in their place among all', () => {
	const names = Array.from({ length: 300 }, (_, i) => `s${i + 1} `);
	const order = show(...names);
	const rows = () => [...document.querySelectorAll('li b')].map((one) => one.textContent!.trim());
	expect(rows()).toHaveLength(200);
	expect(document.body.textContent).toContain('100 more; type words to find them.');
	const search = document.querySelector<HTMLInputElement>('input[type=search]')!;
	search.value = 's290';
	search.dispatchEvent(new InputEvent('input', { bubbles: true }));
	flushSync();
	expect(rows()).toEqual(['s290']);
	const place = document.querySelector<HTMLInputElement>('[aria-label^="Place of"]')!;
	expect(place.value).toBe('290');
	place.value = '1';
	place.dispatchEvent(new Event('change', { bubbles: true }));
	flushSync();
	expect(order()!.startsWith('s290 s1 s2 ')).toBe(true);
	press('s290 ', 'ArrowDown');
	expect(order()!.startsWith('s1 s290 s2 ')).toBe(true);
});
