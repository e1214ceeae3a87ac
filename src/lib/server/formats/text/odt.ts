import { strToU8, zipSync } from 'fflate';
import type { Node } from 'prosemirror-model';
import { numbersIn } from '../../../core/text/numbers';
import { escapeXml, odfWords as words, sizeOnPage, spansOf, type Picture, type Span } from './parts';
import { MEDIA_TYPE, type About } from '../../../core/files/media';

const SPACES =
	'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" office:version="1.3"';
const XML = '<?xml version="1.0" encoding="UTF-8"?>';

/** Asian letters, and those that run from right to left, have properties of their own (ODF 1.3, part 3, 20.192 on). */
const inEveryScript = (property: string, value: string) =>
	`fo:${property}="${value}" style:${property}-asian="${value}" style:${property}-complex="${value}"`;

/** Every way in which words can look, as one style each. */
function styleOf(span: Span): { name: string; properties: string } | null {
	const parts: [boolean, string, string][] = [
		[span.strong, 'B', inEveryScript('font-weight', 'bold')],
		[span.em, 'I', inEveryScript('font-style', 'italic')],
		[span.underline, 'U', 'style:text-underline-style="solid"'],
		[span.strike, 'S', 'style:text-line-through-style="solid"'],
		[span.script === 'super', 'R', 'style:text-position="super 58%"'],
		[span.script === 'sub', 'L', 'style:text-position="sub 58%"']
	];
	const held = parts.filter(([yes]) => yes);
	return held.length
		? { name: `T${held.map((p) => p[1]).join('')}`, properties: held.map((p) => p[2]).join(' ') }
		: null;
}

/** Styles of paragraphs, by the names that word processors know them by. */
const BODY = 'Text_20_body';
const TABLE_HEAD = 'Table_20_Heading';
const HEAD_SIZES = [16, 13, 11.5, 10.5];

/** Writes a text as OpenDocument text (OASIS ODF 1.3). */
export function toOdt(text: Node, about: About, pictures: ReadonlyMap<string, Picture>): Uint8Array {
	const numbers = numbersIn(text);
	const styles = new Map<string, string>();
	const images = new Map<string, string>();
	let tables = 0;

	const inline = (block: Node): string =>
		spansOf(block)
			.map((span) => {
				if (span.lineBreak) return '<text:line-break/>';
				const style = styleOf(span);
				if (style) styles.set(style.name, style.properties);
				const said = style
					? `<text:span text:style-name="${style.name}">${words(span.text)}</text:span>`
					: words(span.text);
				return span.href
					? `<text:a xlink:type="simple" xlink:href="${escapeXml(span.href)}">${said}</text:a>`
					: said;
			})
			.join('');

	const list = (node: Node, style: string): string => {
		let items = '';
		node.forEach((item) => {
			items += `<text:list-item>${blocks(item)}</text:list-item>`;
		});
		return `<text:list text:style-name="${style}">${items}</text:list>`;
	};

	const table = (node: Node): string => {
		const taken: boolean[][] = [];
		let columns = 0;
		let rows = '';
		/** Rows at the top that are heads throughout, which a page repeats. */
		let heads = '';
		let at = 0;
		node.forEach((row) => {
			const held = (taken[at] ??= []);
			let cells = '';
			let column = 0;
			// Cells that another one reaches over are still named (ODF 1.3, part 3, 9.1.6).
			const covered = () => {
				while (held[column]) {
					cells += '<table:covered-table-cell/>';
					column++;
				}
			};
			let head = rows === '';
			row.forEach((cell) => {
				covered();
				head &&= cell.type.name === 'table_header';
				const { colspan, rowspan } = cell.attrs as { colspan: number; rowspan: number };
				const spans = `${colspan > 1 ? ` table:number-columns-spanned="${colspan}"` : ''}${rowspan > 1 ? ` table:number-rows-spanned="${rowspan}"` : ''}`;
				const style = cell.type.name === 'table_header' ? 'CellHead' : 'Cell';
				const said = blocks(cell, style === 'CellHead' ? TABLE_HEAD : BODY);
				cells += `<table:table-cell table:style-name="${style}" office:value-type="string"${spans}>${said}</table:table-cell>`;
				for (let down = 0; down < rowspan; down++)
					for (let right = 0; right < colspan; right++)
						if (down || right) (taken[at + down] ??= [])[column + right] = true;
				column++;
			});
			covered();
			columns = Math.max(columns, column);
			if (head) heads += `<table:table-row>${cells}</table:table-row>`;
			else rows += `<table:table-row>${cells}</table:table-row>`;
			at++;
		});
		if (heads) heads = `<table:table-header-rows>${heads}</table:table-header-rows>`;
		return `<table:table table:name="Table${++tables}"><table:table-column table:number-columns-repeated="${columns}"/>${heads}${rows}</table:table>`;
	};

	const block = (node: Node, number: string | undefined, style: string): string => {
		switch (node.type.name) {
			case 'heading': {
				const level = node.attrs.level as number;
				return `<text:h text:style-name="Heading_20_${level}" text:outline-level="${level}">${inline(node)}</text:h>`;
			}
			case 'bullet_list':
				return list(node, 'Bullets');
			case 'ordered_list':
				return list(node, 'Steps');
			case 'table':
				return table(node);
			case 'picture': {
				const hash = node.attrs.content as string;
				const picture = pictures.get(hash);
				const alt = escapeXml(node.attrs.alt as string);
				if (!picture) return `<text:p>${alt}</text:p>`;
				const name = `Pictures/${hash.slice(0, 16)}.${picture.kind}`;
				images.set(hash, name);
				const { width, height } = sizeOnPage(picture, node.attrs.width as number);
				return `<text:p><draw:frame draw:name="${hash.slice(0, 8)}" text:anchor-type="as-char" svg:width="${width.toFixed(1)}pt" svg:height="${height.toFixed(1)}pt"><draw:image xlink:href="${name}" xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"/>${alt ? `<svg:title>${alt}</svg:title><svg:desc>${alt}</svg:desc>` : ''}</draw:frame></text:p>`;
			}
			case 'caption':
				return `<text:p text:style-name="Caption"><text:span text:style-name="TB">${escapeXml(number ?? '')}</text:span> ${inline(node)}</text:p>`;
			case 'page_break':
				return '<text:p text:style-name="Break"/>';
			default:
				return `<text:p text:style-name="${style}">${inline(node)}</text:p>`;
		}
	};
	const blocks = (parent: Node, style = BODY): string => {
		let found = '';
		parent.forEach((node, offset) => (found += block(node, numbers.get(offset), style)));
		return found;
	};

	const body = blocks(text);
	styles.set('TB', inEveryScript('font-weight', 'bold'));
	const border = 'fo:padding="0.08cm" fo:border="0.5pt solid #9aa8a0"';
	const listLevels = (level: (n: number) => string) =>
		Array.from({ length: 9 }, (_, i) => level(i + 1)).join('');
	const indent = (n: number) =>
		`<style:list-level-properties text:list-level-position-and-space-mode="label-alignment"><style:list-level-label-alignment text:label-followed-by="listtab" fo:text-indent="-0.63cm" fo:margin-left="${(n * 0.63).toFixed(2)}cm"/></style:list-level-properties>`;
	const content = `${XML}<office:document-content ${SPACES}><office:automatic-styles>${[...styles]
		.map(
			([name, properties]) =>
				`<style:style style:name="${name}" style:family="text"><style:text-properties ${properties}/></style:style>`
		)
		.join(
			''
		)}<style:style style:name="Cell" style:family="table-cell"><style:table-cell-properties ${border}/></style:style><style:style style:name="CellHead" style:family="table-cell"><style:table-cell-properties ${border} fo:background-color="#e9eeea"/></style:style><style:style style:name="Break" style:family="paragraph"><style:paragraph-properties fo:break-before="page"/></style:style><text:list-style style:name="Bullets">${listLevels((n) => `<text:list-level-style-bullet text:level="${n}" text:bullet-char="•">${indent(n)}</text:list-level-style-bullet>`)}</text:list-style><text:list-style style:name="Steps">${listLevels((n) => `<text:list-level-style-number text:level="${n}" style:num-format="1" style:num-suffix=".">${indent(n)}</text:list-level-style-number>`)}</text:list-style></office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`;
	const named = `${XML}<office:document-styles ${SPACES}><office:styles><style:default-style style:family="paragraph"><style:text-properties fo:font-family="Arial" fo:font-size="10.5pt"/></style:default-style><style:style style:name="${BODY}" style:display-name="Text body" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.2cm" fo:line-height="130%"/></style:style><style:style style:name="${TABLE_HEAD}" style:display-name="Table Heading" style:family="paragraph" style:parent-style-name="${BODY}"><style:text-properties ${inEveryScript('font-weight', 'normal')}/></style:style>${HEAD_SIZES.map((size, i) => `<style:style style:name="Heading_20_${i + 1}" style:display-name="Heading ${i + 1}" style:family="paragraph" style:default-outline-level="${i + 1}"><style:paragraph-properties fo:margin-top="0.5cm" fo:margin-bottom="0.2cm" fo:keep-with-next="always"/><style:text-properties fo:font-size="${size}pt" ${inEveryScript('font-weight', 'bold')}/></style:style>`).join('')}<style:style style:name="Caption" style:family="paragraph"><style:text-properties fo:font-size="9.5pt" fo:color="#55645d"/></style:style><text:outline-style style:name="Outline">${HEAD_SIZES.map((_, i) => `<text:outline-level-style text:level="${i + 1}" style:num-format="1" text:display-levels="${i + 1}"><style:list-level-properties text:list-level-position-and-space-mode="label-alignment"><style:list-level-label-alignment text:label-followed-by="space"/></style:list-level-properties></text:outline-level-style>`).join('')}</text:outline-style></office:styles><office:automatic-styles><style:page-layout style:name="A4"><style:page-layout-properties fo:page-width="21cm" fo:page-height="29.7cm" fo:margin="2.5cm"/></style:page-layout></office:automatic-styles><office:master-styles><style:master-page style:name="Standard" style:page-layout-name="A4"/></office:master-styles></office:document-styles>`;
	const meta = `${XML}<office:document-meta ${SPACES}><office:meta><dc:title>${escapeXml(`${about.number} ${about.title}`)}</dc:title></office:meta></office:document-meta>`;
	const pieces = ['content.xml', 'styles.xml', 'meta.xml'];
	const manifest = `${XML}<manifest:manifest ${SPACES} manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="${MEDIA_TYPE.odt}" manifest:version="1.3"/>${pieces.map((p) => `<manifest:file-entry manifest:full-path="${p}" manifest:media-type="text/xml"/>`).join('')}${[...images.values()].map((p) => `<manifest:file-entry manifest:full-path="${p}" manifest:media-type="image/${p.endsWith('png') ? 'png' : 'jpeg'}"/>`).join('')}</manifest:manifest>`;
	const still = { mtime: new Date('2000-01-01T12:00:00') };
	return zipSync({
		// First, and not compressed, so that the kind of file can be told from its first bytes.
		mimetype: [strToU8(MEDIA_TYPE.odt), { level: 0, ...still }],
		'content.xml': [strToU8(content), still],
		'styles.xml': [strToU8(named), still],
		'meta.xml': [strToU8(meta), still],
		'META-INF/manifest.xml': [strToU8(manifest), still],
		...Object.fromEntries(
			[...images].map(([hash, name]) => [name, [pictures.get(hash)!.bytes, { level: 0, ...still }]])
		)
	} as never);
}
