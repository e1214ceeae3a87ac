import { Readable } from 'node:stream';
import { expect, it } from 'vitest';
import { bodyLimit, heardOut } from './body';

function body(chunks: number): {
	stream: ReadableStream<Uint8Array>;
	taken: () => number;
	cancelled: () => boolean;
} {
	let taken = 0;
	let cancelled = false;
	const stream = new ReadableStream<Uint8Array>(
		{
			pull(controller) {
				if (taken === chunks) controller.close();
				else controller.enqueue(new Uint8Array([taken++]));
			},
			cancel() {
				cancelled = true;
			}
		},
		{ highWaterMark: 0 }
	);
	return { stream, taken: () => taken, cancelled: () => cancelled };
}

it('gives every piece in order', async () => {
	const pieces: number[] = [];
	for await (const piece of heardOut(body(5).stream)) pieces.push(piece[0]!);
	expect(pieces).toEqual([0, 1, 2, 3, 4]);
});

it('reads the rest when the reader stops, so that the sender can be answered', async () => {
	const sender = body(50);
	await expect(
		(async () => {
			for await (const piece of heardOut(sender.stream)) if (piece[0] === 3) throw new Error('disk full');
		})()
	).rejects.toThrow('disk full');
	expect(sender.taken()).toBe(50);
	expect(sender.cancelled()).toBe(false);
});

it('ends when the sender breaks off', async () => {
	const broken = new ReadableStream<Uint8Array>({
		start: (controller) => controller.enqueue(new Uint8Array(1)),
		pull: (controller) => controller.error(new Error('gone'))
	});
	await expect(Readable.from(heardOut(broken)).toArray()).rejects.toThrow('gone');
});

it('a list of deliverables may be longer than other acts, for those who are signed in and nowhere else', () => {
	const list = '/api/v1/projects/VFT/deliverables/list';
	const usual = bodyLimit('/api/v1/projects/VFT/releases', true)!;
	expect(bodyLimit(list, true)).toBeGreaterThan(usual);
	expect(bodyLimit(list, false)).toBe(bodyLimit('/api/v1/projects/VFT/releases', false));
	for (const path of [`${list}/more`, '/api/v1/projects/a/b/deliverables/list', '/vft/deliverables/list'])
		expect(bodyLimit(path, true), path).toBeLessThanOrEqual(usual);
	expect(bodyLimit('/api/v1/uploads/abc', true)).toBeNull();
});
