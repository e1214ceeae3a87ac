import type { Node } from 'prosemirror-model';
import * as Y from 'yjs';
import * as contract from '../../contract/live';
import { Problem } from '../../core/acts/problem';
import { emptyText, seedText } from '../../core/text/shared';
import { ownUploads } from '../content/content';
import { livePicture } from '../platform/db/schema';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { addLive, beginOnFile, cut, stateOf, type Cut } from './acts';

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

export const addLiveText = does(contract.addLiveText, {
	prepare: (context, input) => cut(context, 'text', seeded(input.text ?? emptyText()), input, input.format),
	async run(context, input) {
		const made = context.prepared as Cut;
		const created = await addLive(context, 'text', made, { ...input, note: 'Begun as live text' });
		await keepPictures(context, created.id, input.pictures);
		return created;
	}
});

export const workLive = does(contract.workLive, {
	async run(context, input) {
		await beginOnFile(context, 'text', input, stateOf(seeded(input.text)));
		await keepPictures(context, input.document, input.pictures);
		return {};
	}
});

export const addLivePicture = does(contract.addLivePicture, {
	async run(context, input) {
		const { row } = context.document;
		const [file] = await keepPictures(context, input.document, [input.upload]);
		context.tell({
			kind: 'live.picture-added',
			placeId: input.document,
			documentId: input.document,
			details: { number: row.number, file: file!.fileName, hash: file!.hash }
		});
		return { content: file!.hash };
	}
});
