import { afterEach, describe, expect, it, vi } from 'vitest';
import { screen, useShortcuts } from './shortcuts.svelte';

let leave: (() => void)[] = [];
function keys() {
	const [lock, help] = [vi.fn(), vi.fn()];
	const list = [
		{ key: 'l', says: 'Lock', run: lock },
		{ key: '?', says: 'Keys', run: help }
	];
	leave.push(useShortcuts(list));
	return { lock, help, list };
}
const press = (key: string, on: Element = document.body, more: KeyboardEventInit = {}) =>
	on.dispatchEvent(
		new KeyboardEvent('keydown', { key, code: `Key of ${key}`, bubbles: true, cancelable: true, ...more })
	);
afterEach(() => {
	for (const one of leave) one();
	leave = [];
	document.body.innerHTML = '';
});

describe('the keys of a screen', () => {
	it('do what they say, and are listed for whoever asks', () => {
		const { lock, list } = keys();
		expect(press('l')).toBe(false);
		expect(lock).toHaveBeenCalledOnce();
		expect(screen.shortcuts).toEqual(list);
	});

	it.each([
		['a field', '<input>', 'input'],
		['a text', '<textarea></textarea>', 'textarea'],
		['what is edited together', '<div contenteditable="true"><b>x</b></div>', 'b'],
		['a choice that is open', '<div role="listbox"><i role="option">x</i></div>', 'i'],
		['a dialog', '<div role="dialog"><button>x</button></div>', 'button'],
		['a menu', '<div role="menu"><button>x</button></div>', 'button']
	])('leave %s alone', (_, html, within) => {
		const { lock } = keys();
		document.body.innerHTML = html;
		expect(press('l', document.querySelector(within)!)).toBe(true);
		expect(lock).not.toHaveBeenCalled();
	});

	it('fire from a box that is ticked, which types nothing', () => {
		const { lock } = keys();
		document.body.innerHTML = '<input type="checkbox">';
		press('l', document.querySelector('input')!);
		expect(lock).toHaveBeenCalledOnce();
	});

	it('are signs whatever a keyboard writes them with, and letters only by themselves', () => {
		const [{ lock, help }, change] = [keys(), vi.fn()];
		leave.push(useShortcuts([{ key: ']', says: 'Next change', run: change }]));
		press('?', document.body, { shiftKey: true });
		press('?');
		expect(help).toHaveBeenCalledTimes(2);
		// On many keyboards of Europe brackets are written with AltGr, which browsers tell as Ctrl and Alt.
		press(']', document.body, { ctrlKey: true, altKey: true, modifierAltGraph: true });
		press(']', document.body, { modifierAltGraph: true });
		press(']');
		expect(change).toHaveBeenCalledTimes(3);
		press(']', document.body, { ctrlKey: true });
		press('L', document.body, { shiftKey: true });
		expect([change.mock.calls.length, lock.mock.calls.length]).toEqual([3, 0]);
		press('L');
		expect(lock).toHaveBeenCalledOnce();
	});

	it('do nothing again while they are held down', () => {
		const { lock } = keys();
		press('l', document.body, { repeat: true });
		expect(lock).not.toHaveBeenCalled();
	});

	it('leave the browser its own', () => {
		const { lock } = keys();
		for (const held of ['ctrlKey', 'metaKey', 'altKey']) press('l', document.body, { [held]: true });
		expect(lock).not.toHaveBeenCalled();
	});

	it('go with the screen, and not with the one after it', () => {
		const before = keys();
		const after = keys();
		leave.shift()!();
		expect(screen.shortcuts).toEqual(after.list);
		press('l');
		expect([before.lock.mock.calls.length, after.lock.mock.calls.length]).toEqual([0, 1]);
	});
});
