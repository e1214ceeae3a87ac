/**
 * Kinds of file that no browser opens and the server can show: as pages, as a mail, as lists. Kinds that a browser
 * shows itself are those of its viewers.
 */

export const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
export const ODT = 'application/vnd.oasis.opendocument.text';
const ODS = 'application/vnd.oasis.opendocument.spreadsheet';
export const LOCKED_OFFICE = 'application/x-locked-office';
export const EML = 'message/rfc822';
export const MSG = 'application/vnd.ms-outlook';
export const IFC = 'application/x-ifc';

/** Pictures that a browser shows. */
export const PICTURES: readonly string[] = [
	'image/png',
	'image/jpeg',
	'image/webp',
	'image/gif',
	'image/svg+xml'
];
/** Pictures that the server shows page by page. */
export const SERVER_PICTURES: readonly string[] = ['image/tiff', 'image/heic', 'image/heif', 'image/avif'];
/** Office files that are shown only as they are printed. */
export const PRINTED: readonly string[] = [
	'application/msword',
	'application/vnd.ms-excel',
	'application/vnd.ms-powerpoint',
	'application/vnd.openxmlformats-officedocument.presentationml.presentation',
	'application/vnd.oasis.opendocument.presentation',
	'application/rtf'
];
/** Office files that can be shown as they are printed, beside their text or their cells. */
export const PRINTABLE: readonly string[] = [DOCX, ODT, XLSX, ODS];

/** Whether a kind is shown by the server to everybody, and not by the browser. */
export const isShownByServer = (mediaType: string): boolean =>
	SERVER_PICTURES.includes(mediaType) ||
	PRINTED.includes(mediaType) ||
	[EML, MSG, IFC, LOCKED_OFFICE].includes(mediaType);

/** Whether a kind is a sheet: marks are drawn on it, and remarks stand on places of it. */
export const isSheetKind = (mediaType: string): boolean =>
	mediaType === 'application/pdf' ||
	mediaType === 'image/vnd.dxf' ||
	PICTURES.includes(mediaType) ||
	SERVER_PICTURES.includes(mediaType);

/** Whether two files of a kind are compared page by page as pictures. */
export const isComparedAsSheet = (mediaType: string): boolean =>
	isSheetKind(mediaType) || PRINTED.includes(mediaType);
