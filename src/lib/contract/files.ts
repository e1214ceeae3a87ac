import { z } from 'zod';
import { TEXT_FORMATS } from '../core/text/losses';
import { SCHEDULE_FORMATS } from '../core/schedule/exchange';
import { RELEASE_STATES, RELEASES_LEFT } from '../core/releases';
import { PURPOSES } from '../core/revisions/revisions';
import { REMARK_FILTERS } from '../core/remarks/remarks';
import { id, projectKey } from './fields';
import { holders } from './holders';
import { register } from './register';

/** What speaks bytes or a stream instead of JSON: files, previews, uploads, the line of events, rooms. */
export interface FileContract<Q extends z.ZodObject = z.ZodObject> {
	name: string;
	summary: string;
	method: 'GET' | 'POST' | 'HEAD' | 'PATCH' | 'DELETE';
	/** Path under /api/v1 with {parameters} named as in the input. */
	path: string;
	/** What stands in the path, and what may stand in the query. */
	input: Q;
	/** The media types of what is answered; `*` for the type of the file itself. */
	answers: readonly string[];
	/** What the body holds, for what takes bytes. */
	takes?: readonly string[];
}

/** Declares an address of bytes; only there so that its types are inferred. */
const file = <Q extends z.ZodObject>(contract: FileContract<Q>): FileContract<Q> => contract;

const label = z.string().min(1).max(20);
/** Present, whatever it says: the file is taken, and not only shown. */
const download = z.string().optional();
/** Present, whatever it says: the issued revision that it takes the place of, instead. */
const before = z.string().optional();
/** What of a shown file is wanted: its outline, or one page of it. */
const shown = {
	part: z.string().optional(),
	page: z.coerce.number().int().optional(),
	/** Width of the picture, in pixels. */
	width: z.coerce.number().int().optional(),
	printed: z.string().optional()
};

export const FILES = {
	versionFile: file({
		name: 'versionFile',
		summary: 'The bytes of a version: to show it, or with ?download as a file',
		method: 'GET',
		path: '/documents/{document}/versions/{label}/file',
		input: z.strictObject({ document: id, label, download }),
		answers: ['*']
	}),
	versionShown: file({
		name: 'versionShown',
		summary: 'What the server makes of a version for showing it: its outline as JSON, pages as pictures',
		method: 'GET',
		path: '/documents/{document}/versions/{label}/shown',
		input: z.strictObject({ document: id, label, ...shown }),
		answers: ['application/json', 'image/webp', 'image/svg+xml']
	}),
	versionEntries: file({
		name: 'versionEntries',
		summary: 'The files inside a stored archive or mail; with a name, one of them',
		method: 'GET',
		path: '/documents/{document}/versions/{label}/entries',
		input: z.strictObject({ document: id, label, name: z.string().optional(), download }),
		answers: ['application/json', '*']
	}),
	sideFile: file({
		name: 'sideFile',
		summary: 'The bytes of a side version',
		method: 'GET',
		path: '/documents/{document}/sides/{side}/file',
		input: z.strictObject({ document: id, side: z.coerce.number().int(), download }),
		answers: ['*']
	}),
	sideShown: file({
		name: 'sideShown',
		summary: 'What the server makes of a side version for showing it',
		method: 'GET',
		path: '/documents/{document}/sides/{side}/shown',
		input: z.strictObject({ document: id, side: z.coerce.number().int(), ...shown }),
		answers: ['application/json', 'image/webp', 'image/svg+xml']
	}),
	documentHistory: file({
		name: 'documentHistory',
		summary: 'The whole history of a document as CSV',
		method: 'GET',
		path: '/documents/{document}/history',
		input: z.strictObject({ document: id }),
		answers: ['text/csv']
	}),
	liveFile: file({
		name: 'liveFile',
		summary: 'A live document as it is now, as a file',
		method: 'GET',
		path: '/documents/{document}/live/file',
		input: z.strictObject({
			document: id,
			format: z.enum([...TEXT_FORMATS, ...SCHEDULE_FORMATS, 'dxf'])
		}),
		answers: ['*']
	}),
	livePictureFile: file({
		name: 'livePictureFile',
		summary: 'The bytes of a picture in a live text',
		method: 'GET',
		path: '/documents/{document}/live/pictures/{content}/file',
		input: z.strictObject({ document: id, content: z.string() }),
		answers: ['*']
	}),
	commentSheet: file({
		name: 'commentSheet',
		summary: 'All remarks on a document as a comment sheet',
		method: 'GET',
		path: '/documents/{document}/remarks/sheet',
		input: z.strictObject({ document: id, format: z.enum(['xlsx', 'pdf']).default('xlsx') }),
		answers: ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'application/pdf']
	}),
	remarkList: file({
		name: 'remarkList',
		summary: 'Remarks of a project or folder as CSV, narrowed as the list is',
		method: 'GET',
		path: '/projects/{project}/remarks/list',
		input: z.strictObject({
			project: projectKey,
			place: id.optional(),
			filter: z.enum(REMARK_FILTERS).optional(),
			by: id.optional()
		}),
		answers: ['text/csv']
	}),
	registerList: file({
		name: 'registerList',
		summary: 'The register as a sheet, CSV or report, narrowed as its list is',
		method: 'GET',
		path: '/projects/{project}/register/list',
		input: z.strictObject({
			...register.input.omit({ skip: true, limit: true, group: true }).shape,
			format: z.enum(['xlsx', 'csv', 'pdf']).default('xlsx')
		}),
		answers: [
			'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
			'text/csv',
			'application/pdf'
		]
	}),
	preview: file({
		name: 'preview',
		summary: 'The small picture of a version',
		method: 'GET',
		path: '/previews/{document}',
		input: z.strictObject({ document: id, label }),
		answers: ['image/webp']
	}),
	arrivalFile: file({
		name: 'arrivalFile',
		summary: 'The bytes of a file that came in through a hatch and was found safe',
		method: 'GET',
		path: '/arrivals/{place}/{arrival}/file',
		input: z.strictObject({ place: id, arrival: id }),
		answers: ['*']
	}),
	releaseFile: file({
		name: 'releaseFile',
		summary: 'A document of a release, for those on its route',
		method: 'GET',
		path: '/release-files/{release}/{document}',
		input: z.strictObject({ release: id, document: id, download, before }),
		answers: ['*']
	}),
	releaseShown: file({
		name: 'releaseShown',
		summary: 'What the server makes of a document of a release, for those on its route',
		method: 'GET',
		path: '/release-files/{release}/{document}/shown',
		input: z.strictObject({ release: id, document: id, before, ...shown }),
		answers: ['application/json', 'image/webp', 'image/svg+xml']
	}),
	releaseOutgoingFile: file({
		name: 'releaseOutgoingFile',
		summary: 'A document of a release as it goes out or went, with its stamp and the marks burned in',
		method: 'GET',
		path: '/release-files/{release}/outgoing/{document}',
		input: z.strictObject({ release: id, document: id }),
		answers: ['*']
	}),
	coverNoteFile: file({
		name: 'coverNoteFile',
		summary: 'The cover note of an issued release',
		method: 'GET',
		path: '/release-files/{release}/cover-note',
		input: z.strictObject({ release: id }),
		answers: ['application/pdf']
	}),
	coverNoteDraftFile: file({
		name: 'coverNoteDraftFile',
		summary: 'The cover note for somebody who gets a release, as it would be if it were issued now',
		method: 'GET',
		path: '/release-files/{release}/cover-note/{recipient}',
		input: z.strictObject({ release: id, recipient: id }),
		answers: ['application/pdf']
	}),
	releasePackageFile: file({
		name: 'releasePackageFile',
		summary: 'An issued release as an open package that proves itself (BagIt, RFC 8493)',
		method: 'GET',
		path: '/release-files/{release}/package',
		input: z.strictObject({ release: id }),
		answers: ['application/zip']
	}),
	releasesList: file({
		name: 'releasesList',
		summary: 'The releases you build, approve or control as a list, narrowed as on screen',
		method: 'GET',
		path: '/projects/{project}/releases/list',
		input: z.strictObject({
			project: projectKey,
			/** Words that are looked for in number, title, who gets it, who built it and whose turn it is. */
			text: z.string().max(200).default(''),
			state: z.enum(['', ...RELEASE_STATES]).default(''),
			purpose: z.enum(['', ...PURPOSES]).default(''),
			/** What is left to do on them. */
			left: z.enum(['', ...RELEASES_LEFT]).default(''),
			format: z.enum(['xlsx', 'csv']).default('xlsx')
		}),
		answers: ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'text/csv']
	}),
	holdersList: file({
		name: 'holdersList',
		summary: 'Who holds what as a list, narrowed as on screen',
		method: 'GET',
		path: '/projects/{project}/holders/list',
		input: z.strictObject({
			...holders.input.omit({ skip: true, limit: true }).shape,
			format: z.enum(['xlsx', 'csv']).default('xlsx')
		}),
		answers: ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'text/csv']
	}),
	releaseCommentSheet: file({
		name: 'releaseCommentSheet',
		summary: 'Everything that was answered to an issued release as a comment sheet',
		method: 'GET',
		path: '/release-files/{release}/answers',
		input: z.strictObject({ release: id, format: z.enum(['xlsx', 'pdf']).default('xlsx') }),
		answers: ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'application/pdf']
	}),
	zip: file({
		name: 'zip',
		summary: 'The newest versions of chosen documents and folders as one zip',
		method: 'POST',
		path: '/zip/{project}',
		input: z.strictObject({ project: projectKey }),
		takes: ['application/json', 'application/x-www-form-urlencoded', 'multipart/form-data'],
		answers: ['application/zip']
	}),
	sendFile: file({
		name: 'sendFile',
		summary: 'Send the bytes of one file; acts then refer to the upload it answers with',
		method: 'POST',
		path: '/uploads',
		input: z.strictObject({ project: projectKey, name: z.string() }),
		takes: ['application/octet-stream'],
		answers: ['application/json']
	}),
	beginUpload: file({
		name: 'beginUpload',
		summary: 'Begin an upload that may break off and go on later (tus 1.0.0)',
		method: 'POST',
		path: '/uploads/resumable',
		input: z.strictObject({}),
		takes: ['application/offset+octet-stream'],
		answers: []
	}),
	uploadOffset: file({
		name: 'uploadOffset',
		summary: 'How far an upload came (tus 1.0.0)',
		method: 'HEAD',
		path: '/uploads/resumable/{upload}',
		input: z.strictObject({ upload: z.string() }),
		answers: []
	}),
	goOnWithUpload: file({
		name: 'goOnWithUpload',
		summary: 'Send more of an upload (tus 1.0.0)',
		method: 'PATCH',
		path: '/uploads/resumable/{upload}',
		input: z.strictObject({ upload: z.string() }),
		takes: ['application/offset+octet-stream'],
		answers: []
	}),
	giveUpUpload: file({
		name: 'giveUpUpload',
		summary: 'Give an upload up (tus 1.0.0)',
		method: 'DELETE',
		path: '/uploads/resumable/{upload}',
		input: z.strictObject({ upload: z.string() }),
		answers: []
	}),
	events: file({
		name: 'events',
		summary: 'Events of a project as they happen, as server-sent events',
		method: 'GET',
		path: '/live',
		input: z.strictObject({
			project: projectKey,
			/** Milliseconds of the moment since which nothing is to be missed: the first message then says to ask again. */
			since: z.coerce.number().int().optional()
		}),
		answers: ['text/event-stream']
	})
};
