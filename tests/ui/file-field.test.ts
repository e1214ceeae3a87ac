import { flushSync, mount, unmount } from 'svelte';
import { afterEach, expect, it, vi } from 'vitest';
import FileField from '../../src/lib/ui/kit/FileField.svelte';

let shown: Record<string, unknown> | null = null;
afterEach(() => {
	if (shown) void unmount(shown);
	document.body.innerHTML = '';
});

const chosen = vi.fn();
function show() {
	chosen.mockClear();
	const props = { label: 'The file', file: undefined, required: true, chosen };
	shown = mount(FileField, { target: document.body, props });
	flushSync();
	return document.querySelector<HTMLInputElement>('input[type=file]')!;
}
const says = () => document.querySelector('label')!.textContent!.replace(/\s+/g, ' ').trim();
const sheet = (name: string) => new File(['x'.repeat(2_000)], name);

/** Chooses files, or drops them on the field; a test cannot make a list of files otherwise. */
function give(kind: 'change' | 'drop', ...files: File[]) {
	const event = new Event(kind, { bubbles: true, cancelable: true });
	const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
	if (kind === 'change') Object.defineProperty(input, 'files', { value: files, configurable: true });
	else Object.defineProperty(event, 'dataTransfer', { value: { files } });
	(kind === 'change' ? input : document.querySelector('label')!).dispatchEvent(event);
	flushSync();
	return event;
}

it('asks for a file until one is chosen, and says which it is and how large', () => {
	const input = show();
	expect(input.required).toBe(true);
	expect(says()).toContain('None chosen');
	give('change', sheet('pan.dxf'));
	expect(says()).toMatch(/pan\.dxf.*2(\.0)? kB/i);
	expect(input.required).toBe(false);
	expect(chosen).toHaveBeenCalledTimes(1);
});

it('takes what is dropped on it, and keeps what it has where nothing comes', () => {
	show();
	expect(give('drop', sheet('pan.dxf'), sheet('other.dxf')).defaultPrevented).toBe(true);
	expect(says()).toContain('pan.dxf');
	give('change');
	give('drop');
	expect(says()).toContain('pan.dxf');
	expect(chosen).toHaveBeenCalledTimes(1);
	give('drop', sheet('newer.dxf'));
	expect(says()).toContain('newer.dxf');
});
