import { HEAD_BYTES } from '../../src/lib/server/formats/sniff';
import type { Store } from '../../src/lib/server/platform/store/store';
import type { Run } from './catalogue';
import { drawing } from './drawings';
import { csv, docx, markdown, pdfSheet, pdfText, xlsx } from './papers';
import { photograph } from './photographs';
import { dayIn } from './days';
import { Random } from './random';

/** All that the file of a document at a version is made from: what is asked alike is made alike. */
export interface Asked {
	form: Run['form'];
	/** What a drawing shows. */
	kind: Run['kind'] | null;
	type: string;
	number: string;
	title: string;
	/** Name of its department. */
	department: string;
	revision: string;
	/** Which version it is, from 1. */
	edit: number;
	/** When it was made, in milliseconds. */
	when: number;
	/** Numbers of documents that it names. */
	see: string[];
}

export interface File {
	name: string;
	bytes: Uint8Array | string;
}

/** A file whose bytes are in the store. */
export interface Kept {
	name: string;
	hash: string;
	size: number;
	/** Its first bytes, which tell its kind. */
	head: Uint8Array;
}

/** Keeps a file in the store. */
export async function keep(store: Store, { name, bytes }: File): Promise<Kept> {
	const data = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
	const piece = (async function* () {
		yield await Promise.resolve(data);
	})();
	return { name, ...(await store.put(piece, Infinity)), head: data.slice(0, HEAD_BYTES) };
}

/** Makes the file of a document at a version. */
export async function fileOf(asked: Asked): Promise<File> {
	const { form, number, title, edit, see, revision } = asked;
	const when = new Date(asked.when);
	const stem = `${number} ${title}`;
	switch (form) {
		case 'dxf':
		case 'sheet': {
			const dxf = drawing(
				asked.kind!,
				{ seed: number, edit, see },
				{
					number,
					title,
					revision,
					date: dayIn(when),
					drawn: 'Drawing office',
					department: asked.department
				}
			);
			return form === 'dxf'
				? { name: `${stem}.dxf`, bytes: dxf }
				: { name: `${stem}.pdf`, bytes: await pdfSheet(dxf, title, when) };
		}
		case 'pdf':
			return { name: `${stem}.pdf`, bytes: await pdfText(asked.type, number, title, edit, when, see) };
		case 'docx':
			return { name: `${stem}.docx`, bytes: await docx(number, title, revision, edit, see) };
		case 'xlsx':
			return { name: `${stem}.xlsx`, bytes: await xlsx(number, title, revision, edit) };
		case 'csv':
			return { name: `${stem}.csv`, bytes: csv(title, edit) };
		case 'md':
			return { name: `${stem}.md`, bytes: markdown(number, title, edit, see) };
		case 'jpeg':
			return {
				name: `${stem}.jpg`,
				// Some minutes before it came.
				bytes: await photograph(
					edit > 1 ? `${title} ${edit}` : title,
					new Date(asked.when - new Random(number).int(2, 55) * 60_000)
				)
			};
	}
}
