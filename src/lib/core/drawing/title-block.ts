import { plainText } from '../dxf/texts';
import { partOf, type TitleBlock } from '../dxf/title-block';
import { bytesOf, GroupReader, latinOf, type Placed } from './groups';

/** What is written in a title block. */
export interface TitleBlockWords {
	number: string;
	revision: string;
}

type Part = keyof TitleBlockWords;

/** The attributes of one block of a drawing, by which part of a title block they are. */
type Attributes = { part: keyof TitleBlock; value: Placed }[];

const wordsOf = (value: Placed): string => plainText(value.group[1]).trim();

/**
 * Whether attributes are a title block of the drawing that says this of itself. What has a number alone is a door or a
 * pile, a revision with its day a row of what changed, and another number that of another sheet.
 */
const isTitleBlock = (of: Attributes, number: string | null): boolean =>
	new Set(of.map((one) => one.part)).size > 1 &&
	of.some(({ part }) => part === 'number' || part === 'title') &&
	of.every(({ part, value }) => part !== 'number' || wordsOf(value) === (number ?? ''));

/** Letters that every version of the format holds as they are. */
const PLAIN = /^[\x20-\x7e]+$/;

/**
 * Writes number and revision in the title block of a drawing: in the attributes that say what the drawing says of itself.
 * Everything else stays byte for byte as it was.
 * @param says what is read in the drawing as it stands
 * @returns the bytes; null where the drawing has no such attributes, or they already say it
 * Raises `DxfError` for what is no drawing.
 */
export function withTitleBlock(
	bytes: Uint8Array,
	says: Pick<TitleBlock, 'number' | 'revision'>,
	to: TitleBlockWords
): Uint8Array | null {
	if (!PLAIN.test(to.number) || !PLAIN.test(to.revision)) return null;
	const text = latinOf(bytes);
	const changed = blocksIn(text)
		.filter((of) => isTitleBlock(of, says.number))
		.flat()
		.flatMap(({ part, value }) =>
			isWritten(part) && wordsOf(value) === (says[part] ?? '') && wordsOf(value) !== to[part]
				? [{ value, words: to[part] }]
				: []
		);
	if (!changed.length) return null;
	let made = '';
	let at = 0;
	for (const { value, words } of changed) {
		const own = text.slice(value.from, value.to);
		// The line of its code stays as it is written, and so does its end.
		const head = own.slice(0, own.indexOf('\n') + 1);
		const end = /\r?\n$/.exec(own)?.[0] ?? '';
		made += text.slice(at, value.from) + head + words + end;
		at = value.to;
	}
	return bytesOf(made + text.slice(at));
}

const isWritten = (part: keyof TitleBlock): part is Part => part === 'number' || part === 'revision';

/** The attributes of each insertion of a block that could be of a title block, in the order of the file. */
function blocksIn(text: string): Attributes[] {
	const found: Attributes[] = [];
	const reader = new GroupReader(text);
	let block: Attributes | null = null;
	let attribute: { tag: string; value: Placed | null; several: boolean } | null = null;
	const endAttribute = () => {
		const part = attribute && partOf(attribute.tag);
		// One of several lines says its words twice; only the program that wrote them keeps both alike.
		if (part && attribute!.value && !attribute!.several) block!.push({ part, value: attribute!.value });
		attribute = null;
	};
	const endBlock = () => {
		if (block?.length) found.push(block);
		block = null;
	};
	for (let placed = reader.next(); placed; placed = reader.next()) {
		const [code, value] = placed.group;
		if (code === 0) {
			endAttribute();
			if (value.trim() === 'ATTRIB' && block) attribute = { tag: '', value: null, several: false };
			else {
				endBlock();
				if (value.trim() === 'INSERT') block = [];
			}
		} else if (attribute) {
			if (code === 1) attribute.value ??= placed;
			if (code === 2) attribute.tag = value.trim().toUpperCase();
			if (code === 101) attribute.several = true;
		}
	}
	endAttribute();
	endBlock();
	return found;
}
