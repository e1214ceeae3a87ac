import fontUrl from '@fontsource-variable/archivo/files/archivo-latin-wdth-normal.woff2?url';
import type { Sheet } from '../../core/dxf/sheet';
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

	/** Raises an Error whose message is a sentence for what is no drawing; never settles once aborted. */
	static async open(bytes: ArrayBuffer, signal: AbortSignal): Promise<DrawnDrawing> {
		const worker = new Worker(new URL('../../workers/sheet.worker.ts', import.meta.url), { type: 'module' });
		signal.addEventListener('abort', () => worker.terminate());
		const given = await asked(worker, { bytes, font: FONT }).catch((error: unknown) => {
			worker.terminate();
			throw error;
		});
		return new DrawnDrawing(worker, (given as { names: string[] }).names);
	}

	private next<T extends SheetAnswer>(request: SheetRequest): Promise<T> {
		const answer = this.last.then(() => asked(this.worker, request)) as Promise<T>;
		this.last = answer.catch(() => {});
		return answer;
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

function asked(worker: Worker, request: SheetRequest): Promise<SheetAnswer> {
	return new Promise((done, failed) => {
		worker.onmessage = ({ data }: MessageEvent<SheetAnswer>) =>
			'fault' in data ? failed(new Error(data.fault)) : done(data);
		worker.onerror = () => failed(new Error('The drawing cannot be read.'));
		worker.postMessage(request, 'bytes' in request ? [request.bytes] : []);
	});
}
