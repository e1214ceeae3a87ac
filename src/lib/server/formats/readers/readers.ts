import type { Family } from '../../../core/files/kinds';
import { drawing } from './drawing';
import { mail } from './mail';
import { model } from './model';
import { archive, csv, letter, locked, office, printed, workbook } from './office';
import { pdf } from './pdf';
import { phone, picture } from './picture';
import { KEPT, NOT_SHOWN, type Reader } from './reader';
import { markdown, text, web } from './text';

/** What is kept and given out as it is. */
const kept: Reader = { called: 'file', inspect: () => KEPT, shown: () => NOT_SHOWN };

/** Who opens which family of files on the server. */
export const READERS: Record<Family, Reader> = {
	pdf,
	drawing,
	picture,
	scan: picture,
	phone,
	mail,
	model,
	text,
	markdown,
	web,
	letter,
	workbook,
	csv,
	printed,
	package: office,
	archive,
	locked,
	sound: kept,
	film: kept,
	other: kept
};
