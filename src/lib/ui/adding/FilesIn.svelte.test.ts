import { flushSync, mount, unmount } from 'svelte';
import { afterEach, expect, it, vi } from 'vitest';
import FilesIn from './FilesIn.svelte';

let shown: Record<string, unknown> | null = null;
afterEach(() => {
	if (shown) void unmount(shown);
	document.body.innerHTML = '';
});

/** The page with so many files chosen, each of which is received as soon as it is sent. */
function chosen(many: number, putIn: (files: { uploads: string[] }) => Promise<unknown>) {
	const send = (file: File) => ({ file, state: 'done', sent: 1, done: Promise.resolve(file.name) });
	shown = mount(FilesIn as never, {
		target: document.body,
		props: { send, putIn, maxFileBytes: 1_000, endings: [] }
	});
	flushSync();
	const field = document.querySelector<HTMLInputElement>('input[type=file]')!;
	const files = Array.from({ length: many }, (_, i) => new File(['x'], `sheet ${i}.pdf`));
	Object.defineProperty(field, 'files', { value: files });
	Object.defineProperty(field, 'value', { value: '', writable: true });
	field.dispatchEvent(new Event('change', { bubbles: true }));
	flushSync();
	document.querySelector('form')!.dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }));
}

it('puts in more than go at once, in several goes', async () => {
	const lots: string[][] = [];
	chosen(1_200, ({ uploads }) => Promise.resolve(lots.push(uploads)));
	await vi.waitFor(() => expect(document.body.textContent).toContain('1,200 files arrived.'));
	expect(lots.map((lot) => lot.length)).toEqual([500, 500, 200]);
	expect(new Set(lots.flat()).size).toBe(1_200);
	expect(document.querySelectorAll('li')).toHaveLength(0);
});

it('keeps what was refused, and says that the rest has arrived', async () => {
	let goes = 0;
	chosen(700, () => (++goes > 1 ? Promise.reject(new Error('The hatch is closed.')) : Promise.resolve()));
	await vi.waitFor(() => expect(document.querySelector('[role=alert]')).not.toBeNull());
	expect(document.body.textContent).toContain('500 files arrived.');
	expect(document.querySelectorAll('li')).toHaveLength(200);
});
