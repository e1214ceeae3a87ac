import { EditorState, TextSelection, type Transaction } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import * as Y from 'yjs';
import { whoWrote, type Removal } from './authorship';
import { lossesOf } from './losses';
import { numbersIn } from './numbers';
import { safeAddress, textSchema } from './schema';
import { fragmentOf, readText, rewriteText, seedText, textFromJson } from './shared';
import {
	asSuggestion,
	notOnlySuggesting,
	suggestionId,
	suggestionsIn,
	withoutSuggestions,
	withSuggestions
} from './suggestions';

const p = (...words: (string | Node)[]) =>
	textSchema.node(
		'paragraph',
		null,
		words.filter((w) => w !== '').map((w) => (typeof w === 'string' ? textSchema.text(w) : w))
	);
const h = (level: number, words: string) => textSchema.node('heading', { level }, textSchema.text(words));
const doc = (...blocks: Node[]) => textSchema.node('doc', null, blocks);

describe('the schema', () => {
	it('takes what it knows and refuses the rest', () => {
		const text = doc(h(1, 'Scope'), p('The linkspan.'));
		expect(textFromJson(text.toJSON()).eq(text)).toBe(true);
		expect(() => textFromJson({ type: 'doc', content: [{ type: 'script' }] })).toThrow(RangeError);
		expect(() => textFromJson({ type: 'doc', content: [] })).toThrow(RangeError);
		expect(() =>
			textFromJson({ type: 'doc', content: [{ type: 'picture', attrs: { content: '../../etc/passwd' } }] })
		).toThrow(RangeError);
	});

	it('follows no link that could run something', () => {
		expect(safeAddress('https://harbour.example/a?b=c')).toBe(true);
		for (const href of [
			'javascript:alert(1)',
			'data:text/html,x',
			' https://x',
			'https://a b',
			'file:///etc'
		])
			expect(safeAddress(href), href).toBe(false);
	});
});

describe('numbers', () => {
	it('counts headings by level and captions by kind', () => {
		const caption = (of: string) => textSchema.node('caption', { of }, textSchema.text('of it'));
		const text = doc(
			h(1, 'a'),
			h(2, 'b'),
			caption('table'),
			h(2, 'c'),
			h(1, 'd'),
			caption('figure'),
			h(3, 'e'),
			caption('table')
		);
		expect([...numbersIn(text).values()]).toEqual([
			'1',
			'1.1',
			'Table 1',
			'1.2',
			'2',
			'Figure 1',
			'2.1.1',
			'Table 2'
		]);
	});
});

/** What a person who may only suggest sees happen to their typing; null when it cannot be suggested. */
let unique = 0;
function trySuggest(text: Node, change: (state: EditorState) => Transaction, author: string): Node | null {
	const state = EditorState.create({ doc: text });
	return asSuggestion(state, change(state), suggestionId(author, `s${++unique}`))?.doc ?? null;
}
function suggest(...of: Parameters<typeof trySuggest>): Node {
	return trySuggest(...of)!;
}

describe('suggestions', () => {
	const text = doc(p('Concrete class C35/45.'), p('Cover 50 mm.'));
	const typed = suggest(text, (s) => s.tr.insertText('C40/50', 16, 22), 'rhosyn');

	it('stand beside the words until somebody decides', () => {
		expect(withoutSuggestions(typed).eq(text)).toBe(true);
		expect(withSuggestions(typed).textContent).toBe('Concrete class C40/50.Cover 50 mm.');
		expect(suggestionsIn(typed)).toMatchObject([{ author: 'rhosyn', added: 'C40/50', removed: 'C35/45' }]);
	});

	it('may join and split paragraphs', () => {
		const split = suggest(text, (s) => s.tr.split(10), 'rhosyn');
		expect(withoutSuggestions(split).eq(text)).toBe(true);
		expect(withSuggestions(split).childCount).toBe(3);
		const joined = suggest(text, (s) => s.tr.delete(20, 28), 'rhosyn');
		expect(withoutSuggestions(joined).eq(text)).toBe(true);
		expect(withSuggestions(joined).childCount).toBe(1);
	});

	it('are told from changes', () => {
		expect(notOnlySuggesting(text, typed, 'rhosyn')).toBeNull();
		const changed = EditorState.create({ doc: text }).tr.insertText('x', 3).doc;
		expect(notOnlySuggesting(text, changed, 'rhosyn')).toContain('can only be suggested');
	});

	it('cannot be made in another’s name, and those of others stay', () => {
		expect(notOnlySuggesting(text, typed, 'petra')).toContain('author');
		expect(notOnlySuggesting(typed, text, 'petra')).toContain('others');
		expect(notOnlySuggesting(typed, withSuggestions(typed), 'petra')).not.toBeNull();
		// One's own can be taken back.
		expect(notOnlySuggesting(typed, text, 'rhosyn')).toBeNull();
	});

	it('whatever is typed while suggesting, the text itself stays', () => {
		let [tried, done] = [0, 0];
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.nat(60), fc.nat(12), fc.stringMatching(/^[a-z ]{0,5}$/)), { maxLength: 8 }),
				(edits) => {
					let now = text;
					for (const [at, length, words] of edits) {
						const size = now.content.size - 1;
						const from = 1 + (at % size);
						const $from = TextSelection.near(now.resolve(from)).from;
						const to = Math.min(now.resolve($from).end(), $from + length);
						const next = trySuggest(now, (s) => s.tr.insertText(words, $from, to), 'rhosyn');
						tried++;
						if (next) done++;
						now = next ?? now;
					}
					expect(withoutSuggestions(now).toString()).toBe(text.toString());
					expect(notOnlySuggesting(text, now, 'rhosyn')).toBeNull();
				}
			),
			{ numRuns: 200 }
		);
		// Refusing is for corners, not for typing.
		expect(done / tried).toBeGreaterThan(0.95);
	});

	it('leave the kind of a block alone', () => {
		const heading = textSchema.nodes.heading!;
		expect(trySuggest(text, (s) => s.tr.setBlockType(1, 5, heading, { level: 2 }), 'rhosyn')).toBeNull();
	});
});

describe('who wrote what', () => {
	it('names who brought each word and who took it away', () => {
		const server = new Y.Doc({ gc: false });
		const writers = new Map<number, string>();
		const removals: Removal[] = [];
		const by = (person: string, change: (text: Node) => Node) => {
			const theirs = new Y.Doc({ gc: false });
			Y.applyUpdate(theirs, Y.encodeStateAsUpdate(server));
			writers.set(theirs.clientID, person);
			theirs.on('update', (update: Uint8Array) => {
				for (const [client, ranges] of Y.decodeUpdate(update).ds.clients)
					for (const { clock, len } of ranges) removals.push({ client, clock, length: len, person });
			});
			if (server.store.clients.size) rewriteText(theirs, change(readText(theirs)));
			else seedText(theirs, change(doc(p())));
			Y.applyUpdate(server, Y.encodeStateAsUpdate(theirs));
		};
		by('oke', () => doc(p('Cover 50 mm.'), p('Class C35/45.')));
		const first = Y.snapshot(server);
		by('rhosyn', (t) => EditorState.create({ doc: t }).tr.insertText('65', 7, 9).doc);
		by('halla', (t) => EditorState.create({ doc: t }).tr.delete(14, 29).doc);
		const passages = whoWrote(server, first, Y.snapshot(server), writers, removals);
		expect(passages[0]!.runs).toEqual(
			expect.arrayContaining([
				{ text: 'Cover ', change: 'same', by: 'oke' },
				{ text: '65', change: 'added', by: 'rhosyn' },
				{ text: '50', change: 'removed', by: 'rhosyn' }
			])
		);
		expect(passages[1]!.runs).toEqual([{ text: 'Class C35/45.', change: 'removed', by: 'halla' }]);
		// From nothing, all of it is what it now says.
		const whole = whoWrote(server, null, Y.snapshot(server), writers, removals);
		expect(whole.map((w) => w.runs.map((r) => r.text).join(''))).toEqual(['Cover 65 mm.']);
	});
});

describe('shared texts', () => {
	it('converge after any histories with partitions, and stay texts', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						who: fc.nat(2),
						at: fc.nat(400),
						cut: fc.nat(9),
						words: fc.stringMatching(/^[a-z ]{0,4}$/),
						split: fc.boolean(),
						meets: fc.option(fc.nat(2), { nil: null })
					}),
					{ maxLength: 25 }
				),
				(history) => {
					const first = new Y.Doc({ gc: false });
					seedText(first, doc(h(1, 'Scope'), p('The quay wall stands on piles.'), p('Second.')));
					const sides = [0, 1, 2].map(() => {
						const side = new Y.Doc();
						Y.applyUpdate(side, Y.encodeStateAsUpdate(first));
						return side;
					});
					const meet = (a: Y.Doc, b: Y.Doc) => {
						Y.applyUpdate(a, Y.encodeStateAsUpdate(b, Y.encodeStateVector(a)));
						Y.applyUpdate(b, Y.encodeStateAsUpdate(a, Y.encodeStateVector(b)));
					};
					for (const { who, at, cut, words, split, meets } of history) {
						const side = sides[who]!;
						const now = readText(side);
						const from = TextSelection.near(now.resolve(at % now.content.size)).from;
						const to = Math.min(now.resolve(from).end(), from + cut);
						const tr = EditorState.create({ doc: now }).tr.insertText(words, from, to);
						if (split) tr.split(from);
						rewriteText(side, tr.doc);
						if (meets !== null && meets !== who) meet(side, sides[meets]!);
					}
					meet(sides[0]!, sides[1]!);
					meet(sides[1]!, sides[2]!);
					meet(sides[0]!, sides[1]!);
					const said = sides.map((s) => readText(s).toString());
					expect(said[1]).toBe(said[0]);
					expect(said[2]).toBe(said[0]);
					readText(sides[0]!).check();
					expect(fragmentOf(sides[0]!).length).toBe(readText(sides[0]!).childCount);
				}
			),
			{ numRuns: 1_000 }
		);
	});
});

describe('losses', () => {
	it('are said before a text is written as a kind of file', () => {
		const text = doc(textSchema.node('page_break'), p('x'));
		expect(lossesOf(text, 'docx')).toEqual([]);
		expect(lossesOf(text, 'md')).toEqual(['Page breaks become rules.']);
	});
});
