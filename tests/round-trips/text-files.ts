import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Node } from 'prosemirror-model';
import sharp from 'sharp';
import type { TextFormat } from '../../src/lib/core/text/losses';
import { MEDIA_TYPE } from '../../src/lib/core/files/media';
import { writeTextTask } from '../../src/lib/server/formats/text/task';
import { importText } from '../../src/lib/ui/live/import-text';
import { PICTURE } from './any-text';

const picture = join(mkdtempSync(join(tmpdir(), 'cupboard-texts-')), 'hinge.png');
const drawn = sharp({ create: { width: 600, height: 60, channels: 3, background: '#0b6b58' } })
	.png()
	.toBuffer()
	.then((bytes) => writeFileSync(picture, bytes));

/** A live text as a file. */
export async function written(text: Node, format: TextFormat): Promise<Uint8Array> {
	await drawn;
	return writeTextTask({
		task: 'text',
		json: text.toJSON() as unknown,
		about: { number: 'VFT-MW-LS-00-SP-0005', title: 'Linkspan' },
		format,
		pictures: { [PICTURE]: picture },
		names: {}
	});
}

/** A file as a live text. Pictures are coded anew when they are written; whatever comes back is the one there is. */
export async function broughtIn(bytes: Uint8Array, format: TextFormat): Promise<Node> {
	const keep = () => Promise.resolve({ upload: 'u', hash: PICTURE, width: 600 });
	return (await importText(Uint8Array.from(bytes).buffer, MEDIA_TYPE[format], keep)).text;
}

/** A text as it is shown, a block each. */
export const shown = (text: Node) => text.content.content.map((block) => block.toJSON() as unknown);
