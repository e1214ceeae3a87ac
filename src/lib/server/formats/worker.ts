/** Runs in processes of its own (`pool.ts`): opens one stored file, says what it is, draws it, or writes one. */
import { DxfError } from '../../core/dxf/read';
import type { Inspection } from '../platform/db/schema';
import { familyOf } from '../../core/files/kinds';
import { Problem, type ProblemCode } from '../../core/acts/problem';
import type { Shown, ShownWord } from '../../core/files/shown';
import { listArchive, type ArchiveEntry } from './archive';
import { coverNote, type CoverNoteTask } from './cover-note';
import { asksForPassword } from './limits';
import { archiveFault } from './scan';
import { attachment } from './readers/mail';
import type { ShownPicture, StoredFile } from './readers/reader';
import { READERS } from './readers/readers';
import { shown, shownPage, shownWords, type ShownTask } from './shown';
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
			return writtenIn(task);
		case 'cover-note':
			return coverNote(task.manifest, task.replyBy);
		case 'copy':
			return copied(task);
		case 'shown':
			return shown(task);
		case 'shown-page':
			return shownPage(task, task.page, task.width);
		case 'shown-words':
			return shownWords(task, task.page);
		case 'list-archive':
			return listArchive(task.path);
		case 'stand-in':
			return makeStandIn(task);
		case 'attachment':
			return attachment(task, task.name);
		case 'archive-fault':
			return archiveFault(task.path);
		case 'inspect':
			return inspect(task);
		case 'preview':
			return preview(task);
	}
}

/** Opens a file to see whether it is whole. What is wrong with it is told as people read it. */
async function inspect(file: StoredFile): Promise<Inspection> {
	const reader = READERS[familyOf(file.mediaType)];
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
	const reader = READERS[familyOf(file.mediaType)];
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
