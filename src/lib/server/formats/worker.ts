/** Runs in processes of its own (`pool.ts`): opens one stored file, says what it is, draws it, or writes one. */
import { DxfError } from '../../core/dxf/read';
import type { Inspection } from '../platform/db/schema';
import { Problem, type ProblemCode } from '../../core/acts/problem';
import type { Shown, ShownWord } from '../../core/files/shown';
import type { ArchiveEntry } from './archive';
import type { CoverNoteTask } from './cover-note';
import { asksForPassword } from './limits';
import type { ShownPicture, StoredFile } from './readers/reader';
import { readerOf } from './readers/readers';
import { shown, shownPage, shownWords, type ShownTask } from './shown';
import type { StandInTask } from './stand-in';
import type { CopyTask } from './stamp';
import type { ListTask } from './lists/list';
import type { RegisterListTask } from './register-list/task';
import type { DrawingLayers, DrawingTask, LayersTask, TitleBlockTask } from './drawing';
import type { ScheduleTask } from './schedule/request';
import type { TextTask } from './text/request';
import { writtenIn } from './written';

/** Pixels across a preview. */
const PREVIEW_WIDTH = 640;

/** Most bytes of a file that a worker gives back. */
const MOST_OUTPUT = 600_000_000;

export type Task =
	| FileTask
	| WriteTask
	| CoverNoteTask
	| LayersTask
	| TitleBlockTask
	| ShownTask
	| StandInTask;
/** Tasks that write a file instead of opening one. */
export type WriteTask = TextTask | ScheduleTask | DrawingTask | ListTask | RegisterListTask | CopyTask;

type FileTask =
	| ({ task: 'inspect' } & StoredFile)
	| { task: 'list-archive'; path: string }
	| { task: 'archive-fault'; path: string }
	| ({ task: 'attachment'; name: string } & StoredFile)
	| ({ task: 'written' } & StoredFile)
	| ({ task: 'preview'; to: string } & StoredFile);

/** What a worker sends back: what the task gave, or what went wrong. */
export type Answer = { value: unknown } | { code: ProblemCode | null; message: string };

type Given =
	| Inspection
	| string
	| boolean
	| null
	| Uint8Array
	| Uint8Array[]
	| DrawingLayers
	| Shown
	| ShownPicture
	| ShownWord[]
	| { entries: ArchiveEntry[]; more: boolean };

/**
 * Does one task. What a task needs is loaded when the first of its kind comes: a worker that loaded the libraries of all
 * of them would take seconds to begin.
 */
export default async function work(task: Task): Promise<Given> {
	switch (task.task) {
		case 'text':
			return (await import('./text/task')).writeTextTask(task);
		case 'schedule':
			return (await import('./schedule/task')).writeScheduleTask(task);
		case 'drawing':
			return (await import('./drawing')).writeDrawingTask(task);
		case 'layers':
			return (await import('./drawing')).drawingLayersTask(task);
		case 'title-block':
			return (await import('./drawing')).titleBlockTask(task);
		case 'list':
			return (await import('./lists/list')).writeList(task);
		case 'register-list':
			return (await import('./register-list/list')).registerList(task);
		case 'cover-notes':
			return (await import('./cover-note')).coverNotes(task.manifest, task.to, task.draft);
		case 'copy':
			return (await import('./stamp')).copied(task);
		case 'list-archive':
			return (await import('./archive')).listArchive(task.path);
		case 'archive-fault':
			return (await import('./scan')).archiveFault(task.path);
		case 'stand-in':
			return (await import('./stand-in')).makeStandIn(task);
		case 'attachment':
			return (await import('./readers/mail')).attachment(task, task.name);
		case 'written':
			return writtenIn(task);
		case 'shown':
			return shown(task);
		case 'shown-page':
			return shownPage(task, task.page, task.width);
		case 'shown-words':
			return shownWords(task, task.page);
		case 'inspect':
			return inspect(task);
		case 'preview':
			return preview(task);
	}
}

/** Opens a file to see whether it is whole. What is wrong with it is told as people read it. */
async function inspect(file: StoredFile): Promise<Inspection> {
	const reader = await readerOf(file);
	try {
		return { fault: null, unchecked: false, ...(await reader.inspect(file)) };
	} catch (error) {
		return { fault: faultOf(error, reader.called), unchecked: false };
	}
}

function faultOf(error: unknown, called: string): string {
	if (error instanceof DxfError) return error.message;
	if ((error as { killed?: boolean }).killed) return 'The file took too long to open.';
	if (asksForPassword(error)) return 'The PDF is encrypted and cannot be opened without its password.';
	return `The ${called} is damaged and does not open.`;
}

/** Draws the preview into `to` (WebP). Gives false when this kind of file has none. */
async function preview({ to, ...file }: Extract<FileTask, { task: 'preview' }>): Promise<boolean> {
	const reader = await readerOf(file);
	if (!reader.preview) return false;
	await reader.preview(file, to, PREVIEW_WIDTH);
	return true;
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
