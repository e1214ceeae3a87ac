import type { Node } from 'prosemirror-model';
import * as Y from 'yjs';
import { z } from 'zod';
import { Problem } from '../../core/acts/problem';
import { emptyText, seedText, textFromJson } from '../../core/text/shared';
import { ownUploads } from '../content/content';
import { livePicture } from '../platform/db/schema';
import { defineAct, type Acting, type ContextOf } from '../platform/runner/act';
import { id, name, number, tags } from '../platform/runner/fields';
import { addLive, beginOnFile, cut, heldLive, stateOf, type Cut } from './acts';

/** Most characters of a text as it comes in, in JSON. */
const MOST_TEXT = 6_000_000;

/** A text as JSON in the words of the schema; what does not fit is refused. */
export const textInput = z.unknown().transform((json, context): Node => {
	try {
		if (JSON.stringify(json).length > MOST_TEXT) throw new RangeError('it is too long');
		return textFromJson(json);
	} catch (error) {
		context.addIssue({
			code: 'custom',
			message: `This is no text that can be edited here: ${(error as Error).message.slice(0, 200)}.`
		});
		return z.NEVER;
	}
});

/** Uploads of the pictures that stand in a text. */
const pictures = z.array(id).max(500, 'At most 500 pictures.').default([]);

const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];

/** Puts pictures at the disposal of a live text; gives their hashes in the order of the uploads. */
async function keepPictures(
	{ tx, person: by, now }: ContextOf['place'] & Acting,
	documentId: string,
	uploads: string[]
): Promise<{ hash: string; fileName: string }[]> {
	if (!uploads.length) return [];
	const files = await ownUploads(tx, { personId: by.id }, uploads, now);
	for (const file of files)
		if (!PICTURES.includes(file.mediaType))
			throw new Problem('invalid', `${file.fileName} is no picture that can stand in a text.`);
	await tx
		.insert(livePicture)
		.values(files.map((file) => ({ documentId, hash: file.hash })))
		.onConflictDoNothing();
	return files;
}

function seeded(text: Node): Y.Doc {
	const doc = new Y.Doc({ gc: false });
	seedText(doc, text);
	return doc;
}

export const addLiveText = defineAct({
	name: 'addLiveText',
	summary: 'Add a text to a folder that several edit at once; empty, or beginning with a given text',
	method: 'POST',
	path: '/places/{folder}/live-texts',
	input: z.strictObject({
		folder: id,
		number,
		title: name,
		tags: tags.default([]),
		text: textInput.optional(),
		pictures,
		format: z.enum(['docx', 'odt']).default('docx')
	}),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder', 'shelf'] },
	events: ['document.added'],
	prepare: (context, input) => cut(context, 'text', seeded(input.text ?? emptyText()), input, input.format),
	async run(context, input) {
		const made = context.prepared as Cut;
		const created = await addLive(context, 'text', made, { ...input, note: 'Begun as live text' });
		await keepPictures(context, created.id, input.pictures);
		return created;
	}
});

export const workLive = defineAct({
	name: 'workLive',
	summary:
		'Work on a file live: its text becomes editable by several at once, the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live',
	input: z.strictObject({ document: id, base: z.string().max(20), text: textInput, pictures }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.begun'],
	async run(context, input) {
		await beginOnFile(context, 'text', input, stateOf(seeded(input.text)));
		await keepPictures(context, input.document, input.pictures);
		return {};
	}
});

export const addLivePicture = defineAct({
	name: 'addLivePicture',
	summary: 'Put a picture at the disposal of a live text; give it a place in the text by its hash',
	method: 'POST',
	path: '/documents/{document}/live/pictures',
	input: z.strictObject({ document: id, upload: id }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['live.picture-added'],
	async run(context, input) {
		const { held, kind } = await heldLive(context, input.document);
		if (kind !== 'text') throw new Problem('conflict', 'Pictures stand in live texts only.');
		const [file] = await keepPictures(context, input.document, [input.upload]);
		context.tell({
			kind: 'live.picture-added',
			placeId: input.document,
			documentId: input.document,
			details: { number: held.row.number, file: file!.fileName, hash: file!.hash }
		});
		return { content: file!.hash };
	}
});
