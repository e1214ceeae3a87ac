import { aroundPages } from './around-pages';
import { given } from './given';

/** What the reader of DOCX would leave out otherwise. */
const STYLES = [
	"p[style-name='Caption'] => figcaption:fresh",
	"p[style-name='caption'] => figcaption:fresh",
	"p[style-name='Title'] => h1:fresh",
	"br[type='page'] => hr",
	'u => u',
	'strike => s'
];
/** English metric units, in which DOCX says how wide a picture is, in a twentieth of a point, its unit for pages. */
const EMU = 635;

const BODY = 'word/document.xml';
/** What a paragraph is like, when it is one that begins a page. */
const BEGINS_PAGE =
	/<w:pPr>(?:(?!<\/w:pPr>)[\s\S])*?<w:pageBreakBefore(?: w:val="(?:1|true|on)")?\/>[\s\S]*?<\/w:pPr>/g;

/** The file with page breaks written as the reader knows them: as characters, not as what a paragraph is like. */
async function withBreaks(bytes: ArrayBuffer): Promise<ArrayBuffer> {
	const { strFromU8, strToU8, unzipSync, zipSync } = await import('fflate');
	const { [BODY]: body } = unzipSync(new Uint8Array(bytes), { filter: ({ name }) => name === BODY });
	const said = body ? strFromU8(body) : '';
	const made = said.replace(BEGINS_PAGE, (like) => `${like}<w:r><w:br w:type="page"/></w:r>`);
	if (made === said) return bytes;
	const parts = unzipSync(new Uint8Array(bytes));
	return Uint8Array.from(zipSync({ ...parts, [BODY]: strToU8(made) }, { level: 0 })).buffer;
}

/** Share of the text's width that each picture takes, in percent, in their order; the reader does not say it. */
async function widthsIn(bytes: ArrayBuffer): Promise<number[]> {
	const { unzipSync, strFromU8 } = await import('fflate');
	const { [BODY]: part } = unzipSync(new Uint8Array(bytes), { filter: ({ name }) => name === BODY });
	// Of what is written in two ways for newer and older programs, the reader takes the older.
	const body = part ? strFromU8(part).replace(/<mc:Choice\b[\s\S]*?<\/mc:Choice>/g, '') : '';
	const twentieths = (tag: string, name: string) =>
		Number(new RegExp(`<w:${tag}\\b[^>]*\\bw:${name}="(\\d+)"`).exec(body)?.[1]);
	const text = twentieths('pgSz', 'w') - twentieths('pgMar', 'left') - twentieths('pgMar', 'right');
	return [...body.matchAll(/<wp:(inline|anchor)\b[\s\S]*?<\/wp:\1>/g)].flatMap(([drawing]) => {
		const wide = Number(/<wp:extent\b[^>]*\bcx="(\d+)"/.exec(drawing)?.[1]);
		const share = Math.round((wide / EMU / text) * 100);
		return [...drawing.matchAll(/<a:blip\b[^>]*r:(?:embed|link)=/g)].map(() => share);
	});
}

/** The text itself, pictures with the share of the text's width that they take. */
async function bodyHtml(bytes: ArrayBuffer): Promise<string> {
	const { default: mammoth } = await import('mammoth');
	const widths = await widthsIn(bytes);
	let at = 0;
	const { value } = await mammoth.convertToHtml(given(await withBreaks(bytes)), {
		styleMap: STYLES,
		ignoreEmptyParagraphs: false,
		convertImage: mammoth.images.imgElement(async (image) => {
			const share = widths[at++];
			const source = `data:${image.contentType};base64,${await image.readAsBase64String()}`;
			return share && share > 0 ? { src: source, 'data-width': String(share) } : { src: source };
		})
	});
	// A page break is within a paragraph there, and between two here.
	const html = value
		.replace(/<p><hr \/><\/p>/g, '<hr />')
		.replace(/<p><hr \/>/g, '<hr /><p>')
		.replace(/<hr \/><\/p>/g, '</p><hr />');
	// Drawn by other means (text boxes, notes), the pictures are others than those that were counted.
	return at === widths.length ? html : html.replace(/ data-width="\d+"/g, '');
}

/**
 * Reads a DOCX file as HTML: its page headers in a `header`, what the pages show, and its page footers in a `footer`.
 * Raises an Error for a damaged file.
 */
export async function readDocx(bytes: ArrayBuffer): Promise<string> {
	const around = await aroundPages(bytes);
	const part = (tag: 'header' | 'footer') => (around[tag] ? `<${tag}>${around[tag]}</${tag}>` : '');
	return part('header') + (await bodyHtml(bytes)) + part('footer');
}
