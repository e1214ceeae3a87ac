import { strFromU8, unzipSync } from 'fflate';

/** The parts of DOCX and ODT files in which words stand, and remarks on them. */
const PARTS = new Set(['word/document.xml', 'word/comments.xml', 'content.xml']);

/** What a text document of an office program holds besides its words and our readers pass over, each as a sentence. */
export function passedOver(bytes: ArrayBuffer): string[] {
	const parts = unzipSync(new Uint8Array(bytes), { filter: ({ name }) => PARTS.has(name) });
	const said = Object.values(parts).map((part) => strFromU8(part));
	const has = (sign: RegExp) => said.some((xml) => sign.test(xml));
	return [
		...(has(/<w:(ins|del) |<text:changed-region\b/)
			? ['Tracked changes come along as if they had been taken.']
			: []),
		...(has(/<w:comment |<office:annotation\b/) ? ['Comments stay in the file.'] : [])
	];
}
