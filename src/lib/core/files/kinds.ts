/**
 * The registry of file kinds: each told once, with who reads it. What else is asked of a kind (does a browser show it,
 * is it compared, what does it become) follows from its family, and every family has its reader on the server
 * (`server/formats/readers`) and its viewer in the browser (`ui/viewers/viewers.ts`): a new one does not compile without.
 */

/** What one program reads in one way. */
export type Family =
	| 'pdf'
	| 'drawing'
	/** Pictures that every browser shows. */
	| 'picture'
	/** Pictures that the server shows page by page. */
	| 'scan'
	/** Pictures that the server shows through another program. */
	| 'phone'
	| 'mail'
	| 'model'
	| 'text'
	| 'markdown'
	| 'web'
	/** Texts of office programs, which are shown laid out. */
	| 'letter'
	/** Schedules of office programs. */
	| 'workbook'
	| 'csv'
	/** Office files that are shown only as they are printed. */
	| 'printed'
	/** Other office files: archives of parts, whose words are found. */
	| 'package'
	| 'archive'
	/** Office files that ask for a password. */
	| 'locked'
	| 'sound'
	| 'film'
	/** Kept and given out as they are. */
	| 'other';

/** A kind of file. */
export interface FileKind {
	/** What it is called on screen. */
	word: string;
	family: Family;
	/** Endings of names, the usual one first. */
	endings: readonly string[];
	/** What its bytes may look like when they do not tell more: then the ending does. */
	within?: 'zip' | 'compound' | 'text';
	/** It may go to a browser as it is: it does no harm there, in a sandbox of its own. */
	inline?: true;
	/** What it becomes when several edit it together. */
	live?: 'text' | 'schedule' | 'drawing';
	/** It is shown as it is printed, too, or only so. */
	printed?: true;
}

export const EML = 'message/rfc822';
export const MSG = 'application/vnd.ms-outlook';
export const IFC = 'application/x-ifc';
export const ODT = 'application/vnd.oasis.opendocument.text';
const LOCKED_OFFICE = 'application/x-locked-office';

const kinds: Record<string, FileKind> = {
	'application/pdf': { word: 'PDF', family: 'pdf', endings: ['pdf'], inline: true },
	'image/vnd.dxf': { word: 'DXF', family: 'drawing', endings: ['dxf'], live: 'drawing' },
	'image/png': { word: 'PNG', family: 'picture', endings: ['png'], inline: true },
	'image/jpeg': { word: 'JPEG', family: 'picture', endings: ['jpg', 'jpeg'], inline: true },
	'image/webp': { word: 'WebP', family: 'picture', endings: ['webp'], inline: true },
	'image/gif': { word: 'GIF', family: 'picture', endings: ['gif'], inline: true },
	'image/svg+xml': { word: 'SVG', family: 'picture', endings: ['svg'], inline: true },
	'image/tiff': { word: 'TIFF', family: 'scan', endings: ['tif', 'tiff'] },
	'image/avif': { word: 'AVIF', family: 'scan', endings: ['avif'] },
	'image/heic': { word: 'HEIC', family: 'phone', endings: ['heic'] },
	'image/heif': { word: 'HEIF', family: 'phone', endings: ['heif'] },
	[EML]: { word: 'Mail', family: 'mail', endings: ['eml'], within: 'text' },
	[MSG]: { word: 'Mail', family: 'mail', endings: ['msg'], within: 'compound' },
	[IFC]: { word: 'IFC', family: 'model', endings: ['ifc'] },
	'text/plain': { word: 'Text', family: 'text', endings: ['txt'], inline: true, live: 'text' },
	'text/calendar': { word: 'Calendar', family: 'text', endings: ['ics'], within: 'text' },
	'text/markdown': {
		word: 'Markdown',
		family: 'markdown',
		endings: ['md', 'markdown'],
		within: 'text',
		inline: true,
		live: 'text'
	},
	'text/html': { word: 'HTML', family: 'web', endings: ['html', 'htm'], live: 'text' },
	'application/vnd.openxmlformats-officedocument.wordprocessingml.document': {
		word: 'DOCX',
		family: 'letter',
		endings: ['docx'],
		within: 'zip',
		live: 'text',
		printed: true
	},
	[ODT]: { word: 'ODT', family: 'letter', endings: ['odt'], within: 'zip', live: 'text', printed: true },
	'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': {
		word: 'XLSX',
		family: 'workbook',
		endings: ['xlsx'],
		within: 'zip',
		live: 'schedule',
		printed: true
	},
	'application/vnd.oasis.opendocument.spreadsheet': {
		word: 'ODS',
		family: 'workbook',
		endings: ['ods'],
		within: 'zip',
		live: 'schedule',
		printed: true
	},
	'text/csv': {
		word: 'CSV',
		family: 'csv',
		endings: ['csv'],
		within: 'text',
		inline: true,
		live: 'schedule'
	},
	'application/msword': {
		word: 'DOC',
		family: 'printed',
		endings: ['doc'],
		within: 'compound',
		printed: true
	},
	'application/vnd.ms-excel': {
		word: 'XLS',
		family: 'printed',
		endings: ['xls'],
		within: 'compound',
		printed: true
	},
	'application/vnd.ms-powerpoint': {
		word: 'PPT',
		family: 'printed',
		endings: ['ppt'],
		within: 'compound',
		printed: true
	},
	'application/vnd.openxmlformats-officedocument.presentationml.presentation': {
		word: 'PPTX',
		family: 'printed',
		endings: ['pptx'],
		within: 'zip',
		printed: true
	},
	'application/vnd.oasis.opendocument.presentation': {
		word: 'ODP',
		family: 'printed',
		endings: ['odp'],
		within: 'zip',
		printed: true
	},
	'application/rtf': { word: 'RTF', family: 'printed', endings: ['rtf'], printed: true },
	[LOCKED_OFFICE]: { word: 'Locked office file', family: 'locked', endings: [] },
	'application/zip': { word: 'Zip', family: 'archive', endings: ['zip'] },
	'audio/mpeg': { word: 'MP3', family: 'sound', endings: ['mp3'], inline: true },
	'audio/wav': { word: 'WAV', family: 'sound', endings: ['wav'], inline: true },
	'audio/ogg': { word: 'Ogg', family: 'sound', endings: ['ogg'], inline: true },
	'audio/mp4': { word: 'M4A', family: 'sound', endings: ['m4a'], inline: true },
	'video/mp4': { word: 'MP4', family: 'film', endings: ['mp4'], inline: true },
	'video/webm': { word: 'WebM', family: 'film', endings: ['webm'], inline: true },
	'video/quicktime': { word: 'MOV', family: 'film', endings: ['mov'], inline: true }
};
/** Every kind by its media type. */
export const FILE_KINDS: ReadonlyMap<string, FileKind> = new Map(Object.entries(kinds));

/** Families of kinds that stand in no list, by how their media types begin. */
const BY_NAME: readonly (readonly [RegExp, Family])[] = [
	[/^text\//, 'text'],
	[/^audio\//, 'sound'],
	[/^video\//, 'film'],
	[/openxmlformats|opendocument/, 'package']
];

/** Who reads a kind. */
export function familyOf(mediaType: string): Family {
	const known = FILE_KINDS.get(mediaType);
	return known?.family ?? BY_NAME.find(([name]) => name.test(mediaType))?.[1] ?? 'other';
}

/** Short word for a kind of file; the ending of its name when the kind has none. */
export function kindWord(mediaType: string, fileName: string): string {
	const ending = /\.([A-Za-z0-9]{1,5})$/.exec(fileName)?.[1]?.toUpperCase();
	return FILE_KINDS.get(mediaType)?.word ?? ending ?? 'File';
}

/** The media type of a file by the ending of its name, among kinds whose bytes look alike. */
export function kindWithin(within: NonNullable<FileKind['within']>, ending: string): string | undefined {
	for (const [mediaType, kind] of FILE_KINDS)
		if (kind.within === within && kind.endings.includes(ending)) return mediaType;
	return undefined;
}

/** What files of a family are compared as; null where they are not. */
const COMPARED: Record<Family, 'sheets' | 'texts' | 'tables' | null> = {
	pdf: 'sheets',
	drawing: 'sheets',
	picture: 'sheets',
	scan: 'sheets',
	phone: 'sheets',
	printed: 'sheets',
	text: 'texts',
	markdown: 'texts',
	letter: 'texts',
	workbook: 'tables',
	csv: 'tables',
	web: null,
	mail: null,
	model: null,
	package: null,
	archive: null,
	locked: null,
	sound: null,
	film: null,
	other: null
};

/** What two files are compared as; null when they cannot be. */
export function comparedAs(one: string, other: string): 'sheets' | 'texts' | 'tables' | null {
	const as = COMPARED[familyOf(one)];
	return as === COMPARED[familyOf(other)] ? as : null;
}

const SHEETS: readonly Family[] = ['pdf', 'drawing', 'picture', 'scan', 'phone'];
const SHOWN_BY_SERVER = [
	'scan',
	'phone',
	'printed',
	'mail',
	'model',
	'locked'
] as const satisfies readonly Family[];
/** Families that the server shows to everybody, and not the browser. */
export type ShownByServer = (typeof SHOWN_BY_SERVER)[number];

/** Whether a kind is a sheet: marks are drawn on it, and remarks stand on places of it. */
export const isSheetKind = (mediaType: string): boolean => SHEETS.includes(familyOf(mediaType));

/** Whether a kind can carry a stamp and stay what it is. */
export const canStamp = (mediaType: string): boolean =>
	mediaType === 'application/pdf' || mediaType === 'image/png' || mediaType === 'image/jpeg';

/** Whether a kind is shown by the server to everybody, and not by the browser. */
export const isShownByServer = (mediaType: string): boolean => isServerFamily(familyOf(mediaType));
export const isServerFamily = (family: Family): family is ShownByServer =>
	(SHOWN_BY_SERVER as readonly Family[]).includes(family);

/** Whether a kind can be shown as it is printed, beside its text or its cells. */
export const isPrintable = (mediaType: string): boolean =>
	FILE_KINDS.get(mediaType)?.printed === true && familyOf(mediaType) !== 'printed';

/** Whether a browser may show a kind as it is; everything else is served as a download. */
export const isInline = (mediaType: string): boolean => FILE_KINDS.get(mediaType)?.inline === true;
