import type { Node } from 'prosemirror-model';
import type { TextFormat } from '../../../core/text/losses';
import type { Services } from '../../platform/services';
import { MEDIA_TYPE, type About, type WrittenFile } from '../../../core/files/media';

/** Hashes of the pictures that stand in a text. */
function picturesIn(text: Node): string[] {
	const found = new Set<string>();
	text.descendants((node) => {
		if (node.type.name === 'picture') found.add(node.attrs.content as string);
	});
	return [...found];
}

/** Writes a text as a file, in a worker thread. */
export async function writeText(
	services: Services,
	text: Node,
	about: About,
	format: TextFormat,
	names: Record<string, string> = {}
): Promise<WrittenFile> {
	const pictures: Record<string, string> = {};
	for (const hash of picturesIn(text))
		if (await services.store.has(hash)) pictures[hash] = await services.store.localPath(hash);
	const bytes = await services.inspector.write({
		task: 'text',
		json: text.toJSON() as unknown,
		about: { number: about.number, title: about.title },
		format,
		pictures,
		names
	});
	return { bytes, mediaType: MEDIA_TYPE[format] };
}
