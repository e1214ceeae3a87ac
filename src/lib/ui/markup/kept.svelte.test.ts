import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CallError } from '../../client/call';
import type { Mark } from '../../core/markup/mark';
import { KeptMarks, type MarkChanges } from './kept.svelte';
import { Markup } from './markup.svelte';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Where marks are kept, as a server keeps them; `fails` is what it says to the next who asks. */
class Server {
	kept = new Map<string, Mark>();
	asked: MarkChanges[] = [];
	fails: Error[] = [];
	keep = async (changes: MarkChanges) => {
		this.asked.push(changes);
		const fault = this.fails.shift();
		if (fault) throw fault;
		for (const mark of changes.drawn) this.kept.set(mark.id, { ...mark, from: 'Maren Aldgate' });
		for (const id of changes.gone) this.kept.delete(id);
	};
	get rows() {
		return [...this.kept.values()];
	}
}
function opened(server = new Server()) {
	const line = new KeptMarks(server.keep);
	const markup = new Markup(line, { id: 'me', name: 'Maren Aldgate' }, '', 'write');
	const draw = (x: number) => {
		markup.begin('cloud', 1, { x, y: 0 }, 10);
		markup.extend({ x: x + 50, y: 40 });
		markup.finish(1);
		return [...markup.chosen][0]!;
	};
	return { server, line, markup, draw };
}
const later = () => vi.advanceTimersByTimeAsync(400);

describe('marks that are kept without a room', () => {
	it('are taken there as they were drawn, what is done in one go at once', async () => {
		const { server, line, draw } = opened();
		const [a, b] = [draw(0), draw(100)];
		expect(line.state).toBe('keeping');
		await later();
		expect(server.asked).toHaveLength(1);
		expect(server.asked[0]!.drawn.map((mark) => mark.id)).toEqual([a, b]);
		expect(line.state).toBe('kept');
	});

	it('are undone after they were kept and read again, and what was undone is gone there, too', async () => {
		const { server, line, markup, draw } = opened();
		const id = draw(0);
		await later();
		line.follow(server.rows);
		expect(markup.marks.get(id)!.from).toBe('Maren Aldgate');
		await later();
		// What came from there is not sent back.
		expect(server.asked).toHaveLength(1);
		markup.undo();
		expect(markup.marks.size).toBe(0);
		await later();
		expect(server.asked[1]).toEqual({ drawn: [], gone: [id] });
		markup.redo();
		await later();
		expect(server.rows.map((mark) => mark.id)).toEqual([id]);
	});

	it('of a colleague come and go, while what one draws here stays', async () => {
		const server = new Server();
		const [mine, theirs] = [opened(server), opened(server)];
		const a = theirs.draw(0);
		await later();
		const b = mine.draw(100);
		// Read before the own mark was kept.
		mine.line.follow(server.rows);
		expect([...mine.markup.marks.keys()].sort()).toEqual([a, b].sort());
		await later();
		theirs.line.follow(server.rows);
		theirs.markup.choose(theirs.markup.marks.get(a)!, false);
		theirs.markup.remove();
		await later();
		mine.line.follow(server.rows);
		expect([...mine.markup.marks.keys()]).toEqual([b]);
	});

	it('wait for a line that is down, and lose nothing', async () => {
		const { server, line, draw } = opened();
		server.fails = [new TypeError('Failed to fetch'), new CallError('busy', 'Try again.', {})];
		const a = draw(0);
		await later();
		expect(line.state).toBe('waiting');
		const b = draw(100);
		await later();
		expect(line.state).toBe('waiting');
		await vi.advanceTimersByTimeAsync(3_100);
		expect(line.state).toBe('kept');
		expect(server.rows.map((mark) => mark.id)).toEqual([a, b]);
	});

	it('say why they were refused, ask no more by themselves, and go along with the next change', async () => {
		const { server, line, markup, draw } = opened();
		server.fails = [new CallError('conflict', 'This verdict is signed; it stays as it was signed.', {})];
		draw(0);
		await later();
		expect([line.state, line.why]).toEqual(['refused', 'This verdict is signed; it stays as it was signed.']);
		await vi.advanceTimersByTimeAsync(10_000);
		expect(server.asked).toHaveLength(1);
		line.follow([]);
		expect(markup.marks.size).toBe(1);
		draw(100);
		await later();
		expect(server.rows).toHaveLength(2);
		expect(line.state).toBe('kept');
	});

	it('are taken there when the page is left', async () => {
		const { server, markup, draw } = opened();
		draw(0);
		markup.close();
		await later();
		expect(server.rows).toHaveLength(1);
	});

	it('only show where nobody draws', async () => {
		const { server, draw } = opened();
		draw(0);
		await later();
		const line = new KeptMarks(null);
		const markup = new Markup(line, { id: 'reader', name: '' }, '', 'read');
		line.follow(server.rows);
		expect(markup.onPage(1)).toHaveLength(1);
		expect(markup.mayDraw).toBe(false);
	});
});
