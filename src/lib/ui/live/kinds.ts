import type { Component } from 'svelte';
import { addressOf, cupboard } from '../../client/cupboard';
import type { DocumentAct } from '../../core/documents/may';
import type { LiveKind } from '../../core/live/live';
import { BEGINNINGS } from '../../core/schedule/beginnings';
import { Unreadable } from '../../formats/package/fault';
import type { Kept } from './import-text';
import type { LiveDocument } from './live-document';

/** What the page of a document hands to whatever is edited on it. */
interface LivePage extends LiveDocument {
	title: string;
	mayManage: boolean;
	departments: { id: string; code: string; name: string }[];
	/** Ids of one's own departments. */
	mine: readonly string[];
}

/** What editing together is begun with, and what of the file it cannot hold. */
export interface Beginning {
	/** Begins with what was read. Raises what the server answers. */
	begin: () => Promise<unknown>;
	losses: string[];
}

/** A version of a document that editing together begins with. */
interface From {
	id: string;
	label: string;
	mediaType: string;
}

/** How a kind of live document looks and begins in the browser; its rules stand in core, its file on the server. */
interface KindOnScreen {
	/** The act that begins it on a file. */
	begins: DocumentAct;
	/** What editing it together means, in a sentence. */
	says: string;
	/** The page that edits it, loaded when it is first shown. */
	page: () => Promise<Component<LivePage>>;
	/** Reads a file as what it begins with. Raises {@link Unreadable} for a file that is none of the kind. */
	fromFile: (from: From, keepPicture: (file: File) => Promise<Kept>) => Promise<Beginning>;
	/** How it begins in a folder; null where it always begins with a file. */
	anew: {
		/** Name of a file of the kind, by which a number is proposed. */
		file: string;
		/** What it may begin with: what that is called, and each by name. */
		with: { label: string; names: string[] } | null;
		add: (what: { folder: string; number: string; title: string }, chosen: number) => Promise<{ id: string }>;
	} | null;
}

/** Loads once, so that a page which is shown again is not built anew. */
function once<T>(load: () => Promise<{ default: T }>): () => Promise<T> {
	let loaded: Promise<T> | null = null;
	return () => (loaded ??= load().then((module) => module.default));
}

async function bytesOf({ id, label }: From): Promise<ArrayBuffer> {
	const response = await fetch(addressOf('versionFile', { document: id, label }));
	if (!response.ok) throw new Unreadable('The file could not be fetched.');
	return response.arrayBuffer();
}

/** Every kind that is edited together. */
export const ON_SCREEN: Record<LiveKind, KindOnScreen> = {
	text: {
		begins: 'workLive',
		says: 'Everybody with Work writes in one text at one time, with Remark one suggests.',
		page: once(() => import('./LiveText.svelte')),
		async fromFile(from, keepPicture) {
			const { importText } = await import('./import-text');
			const { text, pictures, losses } = await importText(await bytesOf(from), from.mediaType, keepPicture);
			const what = { document: from.id, base: from.label, text: text.toJSON() as unknown, pictures };
			return { begin: () => cupboard.workLive(what), losses };
		},
		anew: { file: 'text.docx', with: null, add: (what) => cupboard.addLiveText(what) }
	},
	schedule: {
		begins: 'workScheduleLive',
		says: 'Everybody with Work fills in one schedule at one time; what breaks a rule of its column says so.',
		page: once(() => import('./LiveSchedule.svelte')),
		async fromFile(from) {
			const [{ scheduleFrom }, { readTables }, { notKept }] = await Promise.all([
				import('../../core/schedule/exchange'),
				import('../viewers/read-tables'),
				import('../../formats/tables/not-kept')
			]);
			const tables = await readTables(await bytesOf(from), from.mediaType);
			const { losses, ...schedule } = scheduleFrom(tables);
			if (!schedule.columns.length) throw new Unreadable('There is nothing on the first sheet of this file.');
			return {
				begin: () => cupboard.workScheduleLive({ document: from.id, base: from.label, schedule }),
				losses: [...notKept(tables.slice(0, 1)), ...losses]
			};
		},
		anew: {
			file: 'schedule.xlsx',
			with: { label: 'Begin with the columns of', names: BEGINNINGS.map((one) => one.name) },
			add: (what, chosen) =>
				cupboard.addLiveSchedule({
					...what,
					schedule: { columns: BEGINNINGS[chosen]!.columns, rows: [] }
				})
		}
	},
	drawing: {
		begins: 'workDrawingLive',
		says: 'Everybody with Work edits one drawing at one time, each department on its own layers. What nobody touches stays in the file as it is.',
		page: once(() => import('./LiveDrawing.svelte')),
		fromFile: ({ id, label }) =>
			Promise.resolve({ begin: () => cupboard.workDrawingLive({ document: id, base: label }), losses: [] }),
		anew: null
	}
};
