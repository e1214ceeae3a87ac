// @vitest-environment jsdom
import fc from 'fast-check';
import type { Node } from 'prosemirror-model';
import { expect, it } from 'vitest';
import type { TextFormat } from '../../src/lib/core/text/losses';
import { textSchema } from '../../src/lib/core/text/schema';
import { anyText, block } from '../round-trips/any-text';
import { broughtIn, shown, written } from '../round-trips/text-files';
import { savedByOffice } from './office';

const words = (said: string) => block('paragraph', null, [textSchema.text(said)]);
/**
 * Texts with everything that a live text holds, the same at each run, between other words: a page break that nothing
 * comes before or after is none for LibreOffice.
 */
const TEXTS = fc
	.sample(anyText, { numRuns: 40, seed: 4 })
	.map((text) => block('doc', null, [words('Begin.'), ...text.content.content, words('End.')]));

const filesOf = async (format: TextFormat): Promise<Record<string, Uint8Array>> =>
	Object.fromEntries(
		await Promise.all(TEXTS.map(async (text, i) => [`${i}.${format}`, await written(text, format)] as const))
	);
const wordsOf = (text: Node) => text.textBetween(0, text.content.size, ' ', ' ').split(/\s+/).filter(Boolean);

/** A text without what LibreOffice leaves out of a kind of file, though it shows it. */
type Without = (text: string) => string;
const asIs: Without = (text) => text;
/** Saving as DOCX, it forgets which cells head a table. */
const heads: Without = (text) => text.replace(/table_header/g, 'table_cell');
/** Saving as DOCX what was none, it also gives lists within lists the kind of the outermost. */
const kindsOfLists: Without = (text) => heads(text).replace(/bullet_list|ordered_list/g, 'list');

for (const [format, other, without] of [
	['docx', 'odt', asIs],
	['odt', 'odt', asIs],
	['docx', 'docx', heads],
	['odt', 'docx', kindsOfLists]
] as const)
	it(`LibreOffice opens ${format}, saves it as ${other}, and what it was shown comes back`, async () => {
		const saved = savedByOffice(await filesOf(format), other);
		for (const [i, text] of TEXTS.entries()) {
			const back = await broughtIn(saved.get(`${i}.${format}`)!, other);
			const said = (one: Node) => JSON.parse(without(JSON.stringify(shown(one)))) as unknown;
			expect(said(back)).toEqual(said(text));
		}
	});

it('LibreOffice reads every word of the HTML', async () => {
	const said = savedByOffice(await filesOf('html'), 'txt:Text (encoded):UTF8');
	for (const [i, text] of TEXTS.entries()) {
		const words = new TextDecoder().decode(said.get(`${i}.html`));
		for (const word of wordsOf(text)) expect(words).toContain(word);
	}
});
