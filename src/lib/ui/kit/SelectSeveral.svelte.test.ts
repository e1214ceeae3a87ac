import { flushSync, mount, unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import SelectSeveral from './SelectSeveral.svelte';

let shown: Record<string, unknown> | null = null;
afterEach(() => {
	if (shown) void unmount(shown);
	shown = null;
	document.body.innerHTML = '';
});

const CHOICES = [
	{ value: 'MW', label: 'Marine works' },
	{ value: 'PL', label: 'Planning' },
	{ value: 'EL', label: 'Electrical' }
];
function field(values: string[], choose: (values: string[]) => void = () => {}) {
	shown = mount(SelectSeveral as never, {
		target: document.body,
		props: { label: 'Department', choices: CHOICES, values, choose }
	});
	flushSync();
	return document.querySelector<HTMLButtonElement>('[aria-label="Department"]')!;
}

describe('a field with several of a few', () => {
	it('says what it narrows to: nothing, one, or one and how many more', () => {
		const says = (values: string[]) => {
			const said = field(values).textContent!.trim();
			void unmount(shown!);
			shown = null;
			return said;
		};
		expect([[], ['PL'], ['PL', 'MW', 'EL']].map(says)).toEqual([
			'Department: all',
			'Planning',
			'Planning and 2 more'
		]);
	});

	it('names what is not among the choices any more, so that it can be seen and let go', () => {
		expect(field(['XX']).textContent!.trim()).toBe('XX');
	});

	it('adds to what is chosen and lets go of it, and only tells', async () => {
		const choose = vi.fn();
		const trigger = field(['PL'], choose);
		trigger.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
		const options = () => [...document.querySelectorAll<HTMLElement>('[role=option]')];
		await vi.waitFor(() => expect(options()).toHaveLength(3));
		expect(options().map((one) => one.getAttribute('aria-selected'))).toEqual(['false', 'true', 'false']);
		const press = (n: number) =>
			options()[n]!.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, button: 0 }));
		press(0);
		await vi.waitFor(() => expect(choose).toHaveBeenLastCalledWith(['PL', 'MW']));
		expect(trigger.textContent).toContain('Planning');
	});
});
