/** Runs in processes of its own (`pool.ts`): opens one stored file, says what it is, draws it, or writes one. */
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import yauzl from 'yauzl';
import { decodeDxf, isBinaryDxf, DxfError, readDxf } from '../../core/dxf/read';
import { DrawingPages } from '../../core/dxf/pages';
import { sheetToSvg } from '../../core/dxf/svg';
import { titleBlock } from '../../core/dxf/title-block';
import { tellingWords, type SheetWord } from '../../core/documents/title-block';
import type { Inspection } from '../platform/db/schema';
import { EML, IFC, LOCKED_OFFICE, MSG } from '../../core/files/file-kinds';
import { LOCKED } from '../../formats/package/size';
import { Problem, type ProblemCode } from '../../core/acts/problem';
import type { Shown, ShownWord } from '../../core/files/shown';
import { listArchive, type ArchiveEntry } from './archive';
import { coverNote, type CoverNoteTask } from './cover-note';
import { asksForPassword, MOST_DXF_BYTES, MOST_PICTURE_PIXELS, poppler, popplerBytes } from './limits';
import { archiveFault } from './scan';
import { pdfPages, shown, shownPage, shownWords, type ShownPicture, type ShownTask } from './shown';
import { attachment, MOST_MAIL_BYTES, shownMail } from './mail';
import { modelTables, modelView, MOST_MODEL_BYTES } from './model';
import { makeStandIn, type StandInTask } from './stand-in';
import { copied, type CopyTask } from './stamp';
import { commentSheet, type CommentSheetTask } from './comment-sheet';
import {
	drawingLayersTask,
	writeDrawingTask,
	type DrawingLayers,
	type DrawingTask,
	type LayersTask
} from './drawing';
import type { ScheduleTask } from './schedule/request';
import { writeScheduleTask } from './schedule/task';
import type { TextTask } from './text/request';
import { writeTextTask } from './text/task';
import { writtenIn } from './written';

/** Pixels across a preview. */
const PREVIEW_WIDTH = 640;

/** Most bytes of a file that a worker gives back. */
const MOST_OUTPUT = 600_000_000;

export type Task = FileTask | WriteTask | LayersTask | ShownTask | StandInTask;
/** Tasks that write a file instead of opening one. */
export type WriteTask = TextTask | ScheduleTask | DrawingTask | CommentSheetTask | CoverNoteTask | CopyTask;

type FileTask =
	| { task: 'inspect'; path: string; mediaType: string; size: number }
	| { task: 'list-archive'; path: string }
	| { task: 'archive-fault'; path: string }
	| { task: 'attachment'; path: string; mediaType: string; size: number; name: string }
	| { task: 'written'; path: string; mediaType: string; size: number }
	| { task: 'preview'; path: string; mediaType: string; size: number; to: string };

/** What a worker sends back: what the task gave, or what went wrong. */
export type Answer = { value: unknown } | { code: ProblemCode | null; message: string };

type Given =
	| Inspection
	| string
	| boolean
	| null
	| Uint8Array
	| DrawingLayers
	| Shown
	| ShownPicture
	| ShownWord[]
	| { entries: ArchiveEntry[]; more: boolean };

export default async function work(task: Task): Promise<Given> {
	switch (task.task) {
		case 'text':
			return writeTextTask(task);
		case 'schedule':
			return writeScheduleTask(task);
		case 'drawing':
			return writeDrawingTask(task);
		case 'layers':
			return drawingLayersTask(task);
		case 'comment-sheet':
			return commentSheet(task);
		case 'written':
			return writtenIn(task.path, task.mediaType, task.size);
		case 'cover-note':
			return coverNote(task.manifest, task.replyBy);
		case 'copy':
			return copied(task);
		case 'shown':
			return shown(task);
		case 'shown-page':
			return shownPage(task);
		case 'shown-words':
			return shownWords(task);
		case 'list-archive':
			return listArchive(task.path);
		case 'stand-in':
			return makeStandIn(task);
		case 'attachment':
			return attachment(task.path, task.mediaType, task.size, task.name);
		case 'archive-fault':
			return archiveFault(task.path);
		case 'inspect':
			return inspect(task);
		case 'preview':
			return preview(task);
	}
}

/** Kinds of picture that are opened here, with how they are shown. */
const PICTURES = new Map<string, Inspection['shows']>([
	['image/png', 'picture'],
	['image/jpeg', 'picture'],
	['image/webp', 'picture'],
	['image/gif', 'picture'],
	['image/svg+xml', 'picture'],
	['image/tiff', 'pages'],
	['image/avif', 'pages']
]);

async function inspect({
	path,
	mediaType,
	size
}: Extract<FileTask, { task: 'inspect' }>): Promise<Inspection> {
	const fine = (shows: Inspection['shows'] = 'none', more: Partial<Inspection> = {}): Inspection => ({
		shows,
		fault: null,
		unchecked: false,
		...more
	});
	/** Kept and given out as it is; nothing here can tell whether it is whole. */
	const kept: Inspection = { shows: 'none', fault: null, unchecked: true };
	const broken = (fault: string): Inspection => ({ shows: 'none', fault, unchecked: false });
	try {
		if (mediaType === 'application/pdf') {
			const { stdout } = await poppler('pdfinfo', path, []);
			const pages = Number(/^Pages:\s+(\d+)/m.exec(stdout)?.[1] ?? 0);
			return fine('pdf', { pages, sheetWords: await wordsOfSheet(path).catch(() => []) });
		}
		if (mediaType === 'image/vnd.dxf') {
			if (size > MOST_DXF_BYTES) return kept;
			const bytes = await readFile(path);
			if (isBinaryDxf(bytes)) return kept;
			const { attributes } = new DrawingPages(readDxf(decodeDxf(bytes))).written();
			return fine('dxf', { titleBlock: titleBlock(attributes) });
		}
		if (PICTURES.has(mediaType)) {
			const meta = await sharp(path, { limitInputPixels: MOST_PICTURE_PIXELS }).metadata();
			if (!meta.width) return broken('The picture cannot be read.');
			return fine(PICTURES.get(mediaType));
		}
		if (mediaType === EML || mediaType === MSG) {
			if (size > MOST_MAIL_BYTES) return kept;
			await shownMail(path, mediaType, size);
			return fine('mail');
		}
		if (mediaType === IFC && size <= MOST_MODEL_BYTES) {
			// What its reader does not understand may be newer than it, and is no fault of the file.
			return await modelTables(path).then(
				() => fine('table'),
				() => kept
			);
		}
		if (mediaType === LOCKED_OFFICE) return { ...kept, fault: LOCKED };
		if (mediaType === 'text/markdown') return fine('markdown');
		if (mediaType.startsWith('text/')) return fine(mediaType === 'text/html' ? 'none' : 'text');
		if (/openxmlformats|opendocument|application\/zip/.test(mediaType)) {
			await checkZip(path);
			return fine('none');
		}
		return kept;
	} catch (error) {
		return broken(faultOf(error, mediaType));
	}
}

/** The words of a PDF's first page that could be its number or revision, in shares of the page. */
async function wordsOfSheet(path: string): Promise<SheetWord[]> {
	const [page] = await pdfPages(path, 1);
	const words = await shownWords({ path, mediaType: 'application/pdf', page: 1 });
	return tellingWords(
		words.map((w) => ({
			text: w.text,
			x: (w.x + w.w / 2) / page!.width,
			y: (w.y + w.h / 2) / page!.height
		}))
	);
}

function faultOf(error: unknown, mediaType: string): string {
	if (error instanceof DxfError) return error.message;
	if ((error as { killed?: boolean }).killed) return 'The file took too long to open.';
	if (asksForPassword(error)) return 'The PDF is encrypted and cannot be opened without its password.';
	const what = mediaType === 'application/pdf' ? 'PDF' : mediaType.startsWith('image/') ? 'picture' : 'file';
	return `The ${what} is damaged and does not open.`;
}

/** Reads the table of contents of a zip-based file; rejects when it is broken. */
function checkZip(path: string): Promise<void> {
	return new Promise((resolve, reject) => {
		yauzl.open(path, { lazyEntries: true, validateEntrySizes: true }, (error, zip) => {
			if (error || !zip) return reject(error);
			let count = 0;
			zip.on('entry', () => (++count > 100_000 ? (zip.close(), resolve()) : zip.readEntry()));
			zip.on('end', () => resolve());
			zip.on('error', reject);
			zip.readEntry();
		});
	});
}

/** Draws the preview into `to` (WebP). Gives false when this kind of file has none. */
async function preview(task: Extract<FileTask, { task: 'preview' }>): Promise<boolean> {
	const { path, mediaType, size, to } = task;
	if (mediaType === 'application/pdf') {
		const page = ['-f', '1', '-l', '1', '-scale-to-x', String(PREVIEW_WIDTH), '-scale-to-y', '-1'];
		const stdout = await popplerBytes('pdftoppm', path, page);
		const header = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(stdout.subarray(0, 64).toString('latin1'));
		if (!header) return false;
		const raw = { width: Number(header[1]), height: Number(header[2]), channels: 3 as const };
		await sharp(stdout.subarray(header[0].length), { raw }).webp({ quality: 80 }).toFile(to);
		return true;
	}
	if (mediaType === 'image/vnd.dxf' && size <= MOST_DXF_BYTES) {
		const pages = new DrawingPages(readDxf(decodeDxf(await readFile(path))));
		const svg = sheetToSvg(pages.page(pages.first), PREVIEW_WIDTH);
		await sharp(Buffer.from(svg), { limitInputPixels: MOST_PICTURE_PIXELS }).webp({ quality: 85 }).toFile(to);
		return true;
	}
	if (mediaType === IFC && size <= MOST_MODEL_BYTES) {
		await (await modelView(path, 0, PREVIEW_WIDTH)).webp({ quality: 80 }).toFile(to);
		return true;
	}
	if (PICTURES.has(mediaType)) {
		await sharp(path, { limitInputPixels: MOST_PICTURE_PIXELS })
			.autoOrient()
			.resize({ width: PREVIEW_WIDTH, withoutEnlargement: true })
			.webp({ quality: 80 })
			.toFile(to);
		return true;
	}
	return false;
}

async function answer(task: Task): Promise<Answer> {
	try {
		const value = await work(task);
		if (value instanceof Uint8Array && value.byteLength > MOST_OUTPUT)
			return { code: 'too-large', message: 'What would be written is too large.' };
		return { value };
	} catch (error) {
		return {
			code: error instanceof Problem ? error.code : null,
			message: error instanceof Error ? error.message : String(error)
		};
	}
}

if (process.env.CUPBOARD_FORMAT_WORKER === '1') {
	process.on('message', ({ task }: { task: Task }) => {
		void answer(task).then((given) => process.send!(given));
	});
	process.on('disconnect', () => process.exit(0));
}
