/** How a worker that compares two drawings asks another one that holds the older. */
import type { DrawingSide } from '../core/compare/drawing-side';
import type { Asked } from '../core/compare/drawings';

type Question = { [K in keyof Asked]: { what: K; of: Parameters<DrawingSide[K]> } }[keyof Asked];
type Answer = { given: unknown } | { failed: true };

function answered(side: DrawingSide, question: Question): unknown {
	switch (question.what) {
		case 'readings':
			return side.readings(...question.of);
		case 'items':
			return side.items(...question.of);
		case 'boxes':
			return side.boxes(...question.of);
	}
}

/** Answers what is asked of a drawing on a port, one after the other. */
export function answerOn(port: MessagePort, side: DrawingSide): void {
	port.onmessage = ({ data }: MessageEvent<Question>) => {
		try {
			port.postMessage({ given: answered(side, data) } satisfies Answer);
		} catch {
			port.postMessage({ failed: true } satisfies Answer);
		}
	};
}

/** The drawing that is answered for at the other end of a port. */
export function askedOn(port: MessagePort): Asked {
	const waiting: { done: (given: never) => void; failed: (error: Error) => void }[] = [];
	port.onmessage = ({ data }: MessageEvent<Answer>) => {
		const { done, failed } = waiting.shift()!;
		if ('given' in data) done(data.given as never);
		else failed(new Error('The older drawing cannot be taken apart.'));
	};
	const ask = <T>(question: Question) =>
		new Promise<T>((done, failed) => {
			waiting.push({ done, failed });
			port.postMessage(question);
		});
	return {
		readings: (...of) => ask({ what: 'readings', of }),
		items: (...of) => ask({ what: 'items', of }),
		boxes: (...of) => ask({ what: 'boxes', of })
	};
}
