/** Plain kinds of text. */
import { open } from 'node:fs/promises';
import { marked } from 'marked';
import { decodeText } from '../../../core/files/encoding';
import type { Reader } from './reader';
import { MOST_READ, paragraphs, withoutTags } from './words';

/** The beginning of a text file in whichever encoding it is, up to a bound. */
async function plainText(path: string): Promise<string> {
	const file = await open(path);
	try {
		const { buffer, bytesRead } = await file.read({ buffer: Buffer.alloc(MOST_READ), position: 0 });
		return decodeText(buffer.subarray(0, bytesRead)).text;
	} finally {
		await file.close();
	}
}

export const text: Reader = {
	called: 'file',
	inspect: () => ({}),
	async shown({ path }) {
		return { kind: 'text', html: paragraphs((await plainText(path)).split(/\r?\n/)) };
	},
	written: ({ path }) => plainText(path)
};

/** A text with its marks of headings, lists and emphasis as what they mean. */
const page = async (path: string) => marked.parse(await plainText(path), { gfm: true });

export const markdown: Reader = {
	...text,
	async shown({ path }) {
		return { kind: 'text', html: await page(path) };
	},
	// The marks are not read as words of the text.
	async written({ path }) {
		return withoutTags(await page(path));
	}
};

export const web: Reader = {
	...text,
	async shown({ path }) {
		return { kind: 'text', html: await plainText(path) };
	},
	async written({ path }) {
		return withoutTags(await plainText(path));
	}
};
