/** Files of office programs: archives of parts in XML (ECMA-376, ISO/IEC 26300), and what came before them. */
import { readFile } from 'node:fs/promises';
import { ODT } from '../../../core/files/kinds';
import { readDocx } from '../../../formats/docx/read';
import { checkPackage, LOCKED } from '../../../formats/package/size';
import { readTables } from '../../../formats/tables/read';
import { checkArchive, listArchive, openEntry } from '../archive';
import { KEPT, NOT_SHOWN, type Reader, type StoredFile } from './reader';
import { text } from './text';
import { MOST_READ, MOST_WRITTEN, paragraphs, withoutTags } from './words';

/** Most rows of a sheet and columns of a row that are shown. */
const MOST_CELLS = { rows: 20_000, columns: 200 };

/** Which parts hold the words, by how the media type is called. */
const PARTS: readonly (readonly [kind: RegExp, parts: RegExp])[] = [
	[/wordprocessingml/, /^word\/(document|header\d*|footer\d*|footnotes|comments)\.xml$/],
	[/spreadsheetml/, /^xl\/(sharedStrings|worksheets\/sheet\d+)\.xml$/],
	[/presentationml/, /^ppt\/slides\/slide\d+\.xml$/],
	// Page headers and footers stand among the styles.
	[/opendocument\.text/, /^(content|styles)\.xml$/],
	[/opendocument/, /^content\.xml$/]
];

async function partOf(path: string, name: string): Promise<string> {
	const { stream } = await openEntry(path, name);
	const chunks: Buffer[] = [];
	for await (const chunk of stream) chunks.push(chunk as Buffer);
	return Buffer.concat(chunks).toString('utf8');
}

async function written({ path, mediaType }: StoredFile): Promise<string> {
	const parts = PARTS.find(([kind]) => kind.test(mediaType))?.[1];
	if (!parts) return '';
	const { entries } = await listArchive(path);
	let all = '';
	for (const { name, size } of entries) {
		if (!parts.test(name) || size > MOST_READ || all.length > MOST_WRITTEN) continue;
		all += withoutTags(await partOf(path, name)) + '\n';
	}
	return all;
}

/** The paragraphs of an OpenDocument text, one after the other. */
async function linesOf(path: string): Promise<string[]> {
	const xml = (await partOf(path, 'content.xml')).replace(/<\/text:[ph]>/g, '\n');
	return withoutTags(xml)
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
}

/** An office file whose words are found, and nothing more. */
export const office: Reader = {
	called: 'file',
	async inspect({ path }) {
		await checkArchive(path);
		return {};
	},
	shown: () => NOT_SHOWN,
	written
};

export const letter: Reader = {
	...office,
	async shown({ path, mediaType }) {
		if (mediaType === ODT) return { kind: 'text', html: paragraphs(await linesOf(path)) };
		const bytes = await readFile(path);
		checkPackage(bytes);
		return { kind: 'text', html: await readDocx(Uint8Array.from(bytes).buffer) };
	}
};

export const workbook: Reader = {
	...office,
	async shown({ path, mediaType }) {
		return { kind: 'table', tables: await readTables(await readFile(path), mediaType, MOST_CELLS) };
	}
};

export const csv: Reader = { ...text, shown: workbook.shown };

/** Shown through what is printed of it; of what was written before 2007 nothing here tells whether it is whole. */
export const printed: Reader = {
	...office,
	inspect: (file) => (PARTS.some(([kind]) => kind.test(file.mediaType)) ? office.inspect(file) : KEPT)
};

export const locked: Reader = {
	called: 'file',
	inspect: () => ({ ...KEPT, fault: LOCKED }),
	shown: () => ({ kind: 'none', sentence: LOCKED })
};

export const archive: Reader = {
	called: 'file',
	inspect: office.inspect,
	async shown({ path }) {
		return { kind: 'archive', ...(await listArchive(path)) };
	}
};
