import fontUrl from '@fontsource-variable/archivo/files/archivo-latin-wdth-normal.woff2?url';
import type { DrawingChange } from '../../core/compare/drawings';
import type { Sheet } from '../../core/dxf/sheet';
import { PATIENCE, TOO_LONG } from './patience';
import type { Drawn, DrawnPage, SheetAnswer, SheetRequest } from '../../workers/sheet.worker';

/** The font of a drawing's texts, as `draw-sheet` names it; a worker knows none of the page's. */
const FONT = { family: 'Archivo Variable', url: fontUrl };

/** A drawing that a worker reads and draws; of its lines nothing comes to the page. */
export class DrawnDrawing {
	/** One request after the other: an answer belongs to what was asked last. */
	private last: Promise<unknown> = Promise.resolve();

	private constructor(
		private readonly worker: Worker,
		/** What its pages are called. */
		readonly names: string[]
	) {}

	/**
	 * Raises an Error whose message is a sentence for what is no drawing; once aborted, what the bytes raise, or nothing.
	 * @param coming the bytes, which may still be on their way while the worker starts
	 */
	static async open(coming: Promise<ArrayBuffer>, signal: AbortSignal): Promise<DrawnDrawing> {
		const worker = new Worker(new URL('../../workers/sheet.worker.ts', import.meta.url), { type: 'module' });
		signal.addEventListener('abort', () => worker.terminate());
		try {
			const bytes = await coming;
			const given = await asked(worker, { bytes, font: FONT }, [bytes]);
			return new DrawnDrawing(worker, (given as { names: string[] }).names);
		} catch (error) {
			worker.terminate();
			throw error;
		}
	}

	private next<T extends SheetAnswer>(request: SheetRequest, give: Transferable[] = []): Promise<T> {
		const answer = this.last.then(() => asked(this.worker, request, give)) as Promise<T>;
		this.last = answer.catch(() => {});
		return answer;
	}

	/**
	 * What of this drawing differs from an older one; the two workers ask each other. Raises an Error whose message is a
	 * sentence when they cannot be compared, or not in time.
	 */
	async changesFrom(older: DrawnDrawing): Promise<DrawingChange[]> {
		const { port1, port2 } = new MessageChannel();
		older.worker.postMessage({ answers: port1 } satisfies SheetRequest, [port1]);
		let timer: ReturnType<typeof setTimeout> | undefined;
		const late = new Promise<never>((_, failed) => {
			timer = setTimeout(() => failed(new Error(TOO_LONG)), PATIENCE);
		});
		const found = this.next<{ changes: DrawingChange[] }>({ older: port2 }, [port2]);
		return (await Promise.race([found, late]).finally(() => clearTimeout(timer))).changes;
	}

	/** The extents of a page. */
	async box(page: number): Promise<Sheet['box']> {
		return (await this.next<{ box: Sheet['box'] }>({ page })).box;
	}

	/** A page as a picture. @param box what of it is drawn, in drawing units */
	draw(page: number, box: Sheet['box'], size: Drawn): Promise<DrawnPage> {
		return this.next<DrawnPage>({ draw: page, box, ...size });
	}
}

function asked(worker: Worker, request: SheetRequest, give: Transferable[]): Promise<SheetAnswer> {
	return new Promise((done, failed) => {
		worker.onmessage = ({ data }: MessageEvent<SheetAnswer>) =>
			'fault' in data ? failed(new Error(data.fault)) : done(data);
		worker.onerror = () => failed(new Error('The drawing cannot be read.'));
		worker.postMessage(request, give);
	});
}
