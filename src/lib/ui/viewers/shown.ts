import type { Shown, ShownTable, ShownWord } from '../../core/files/shown';
import { cleanHtml, readText } from './read-office';
import { readTables } from './read-tables';
import { Unreadable } from '../../formats/package/fault';

/** A file to be shown: its own bytes, or, for those who may not take it, what the server makes of it. */
export interface FileToShow {
	url: string;
	mediaType: string;
	/** The address is that of what is made of the file. */
	made?: boolean;
}

/** A file inside another one: of an archive, or that came with a mail. */
export interface FileWithin {
	url: string;
	mediaType: string;
	fileName: string;
	size: number;
}

/** The address of a part of what the server makes of a file. */
export function partOf(url: string, part: 'page' | 'words', page: number, width?: number): string {
	return asking(url, `part=${part}&page=${page}${width ? `&width=${width}` : ''}`);
}

/** An address with more that is asked of it, also where something is asked of it already. */
export const asking = (url: string, more: string): string => `${url}${url.includes('?') ? '&' : '?'}${more}`;

/** The bytes of a file itself. Raises {@link Unreadable} with a sentence when they cannot be had. */
export async function bytesToShow(url: string, signal: AbortSignal): Promise<ArrayBuffer> {
	return (await fetched(url, signal)).arrayBuffer();
}

async function fetched(url: string, signal: AbortSignal): Promise<Response> {
	const response = await fetch(url, { signal });
	if (response.ok) return response;
	const answer = (await response.json().catch(() => ({}))) as { detail?: string };
	throw new Unreadable(answer.detail ?? 'The file could not be fetched.');
}

/** What the server makes of a file. Raises {@link Unreadable} with a sentence when it cannot be shown. */
export async function readShown(url: string, signal: AbortSignal): Promise<Shown> {
	const shown = (await (await fetched(url, signal)).json()) as Shown;
	if (shown.kind === 'none') throw new Unreadable(shown.sentence);
	return shown;
}

/** The words of one page of it. */
export async function readWords(url: string, page: number, signal: AbortSignal): Promise<ShownWord[]> {
	const answer = (await (await fetched(partOf(url, 'words', page), signal)).json()) as { words: ShownWord[] };
	return answer.words;
}

/** A page of it as a picture that can be drawn. */
export async function readPage(
	url: string,
	page: number,
	width: number,
	signal: AbortSignal
): Promise<HTMLImageElement> {
	const blob = await (await fetched(partOf(url, 'page', page, width), signal)).blob();
	const image = new Image();
	image.src = URL.createObjectURL(blob);
	await image.decode().catch(() => {
		throw new Unreadable('This page cannot be drawn.');
	});
	return image;
}

/** A text as HTML that is safe to show, from the file itself or from what the server makes of it. */
export async function textToShow(file: FileToShow, signal: AbortSignal): Promise<string> {
	if (!file.made) return readText(await bytesToShow(file.url, signal), file.mediaType);
	const shown = await readShown(file.url, signal);
	if (shown.kind !== 'text') throw new Unreadable('This file is not shown as a text.');
	return cleanHtml(shown.html);
}

/** A schedule as its sheets, from the file itself or from what the server makes of it. */
export async function tablesToShow(file: FileToShow, signal: AbortSignal): Promise<ShownTable[]> {
	if (!file.made) return readTables(await bytesToShow(file.url, signal), file.mediaType, { signal });
	const shown = await readShown(file.url, signal);
	if (shown.kind !== 'table') throw new Unreadable('This file is not shown as a schedule.');
	return shown.tables;
}
