// @vitest-environment jsdom
import { strToU8, zipSync } from 'fflate';
import { expect, it } from 'vitest';
import { readOdt } from './read-odt';

const SPACES = ['office', 'text', 'style', 'fo', 'table', 'draw', 'svg', 'xlink', 'dc']
	.map((name) => `xmlns:${name}="urn:${name}"`)
	.join(' ');
/** An ODT file as a word processor writes it: styles that are named apart from those it makes itself. */
function odt(body: string, named = '', automatic = ''): ArrayBuffer {
	const files = {
		'content.xml': `<office:document-content ${SPACES}><office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`,
		'styles.xml': `<office:document-styles ${SPACES}><office:styles>${named}</office:styles><office:automatic-styles><style:page-layout><style:page-layout-properties fo:page-width="21cm" fo:margin-left="2cm" fo:margin-right="20mm"/></style:page-layout></office:automatic-styles></office:document-styles>`,
		'Pictures/a.png': 'png'
	};
	return Uint8Array.from(
		zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])))
	).buffer;
}
const frame = (attributes: string, inner = '') =>
	`<text:p><draw:frame ${attributes}><draw:image xlink:href="Pictures/a.png"/>${inner}</draw:frame></text:p>`;

it('looks of words and of lists come from styles that are named, too', async () => {
	const html = await readOdt(
		odt(
			'<text:p text:style-name="P1">The <text:span text:style-name="Strong_20_Emphasis">pit</text:span></text:p><text:list text:style-name="Numbering_20_1"><text:list-item><text:p>one</text:p></text:list-item></text:list>',
			'<style:style style:name="Title" style:family="paragraph"/><style:style style:name="Strong_20_Emphasis" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style><text:list-style style:name="Numbering_20_1"><text:list-level-style-number text:level="1"/></text:list-style>',
			'<style:style style:name="P1" style:family="paragraph" style:parent-style-name="Title"/>'
		)
	);
	expect(html).toBe('<h1>The <strong>pit</strong></h1><ol><li><p>one</p></li></ol>');
});

it('captions are those of any style that derives from one, and styles that derive in a circle end', async () => {
	const html = await readOdt(
		odt(
			'<text:p text:style-name="P2">Figure 1: The pit</text:p><text:p text:style-name="P3">round</text:p>',
			'<style:style style:name="Illustration" style:parent-style-name="Caption"/>',
			'<style:style style:name="P2" style:parent-style-name="Illustration"/><style:style style:name="P3" style:parent-style-name="P4"/><style:style style:name="P4" style:parent-style-name="P3"/>'
		)
	);
	expect(html).toBe('<figcaption>Figure 1: The pit</figcaption><p>round</p>');
});

it('footnotes stand at the end, and remarks of others are left out', async () => {
	const html = await readOdt(
		odt(
			'<text:p>Piles<text:note><text:note-citation>1</text:note-citation><text:note-body><text:p>Driven.</text:p></text:note-body></text:note><office:annotation><dc:creator>X</dc:creator><text:p>why?</text:p></office:annotation>.</text:p>'
		)
	);
	expect(html).toBe(
		'<p>Piles<sup><a href="#footnote-1">[1]</a></sup>.</p><ol><li id="footnote-1"><p>Driven.</p></li></ol>'
	);
});

it.each([
	['svg:width="8.5cm"', '50'],
	['svg:width="170mm"', '100'],
	['svg:width="1.673in"', '25'],
	['style:rel-width="40%" svg:width="1cm"', '40']
])('a picture of %s takes %s percent of the text', async (attributes, share) => {
	const html = await readOdt(odt(frame(attributes, '<svg:desc>The &lt;pit&gt;</svg:desc>')));
	expect(html).toContain(`alt="The &#60;pit&#62;" data-width="${share}"`);
});

it('a picture of no known width says none', async () => {
	expect(await readOdt(odt(frame('svg:width="wide"')))).not.toContain('data-width');
});

it('rows and cells that head a table do so here', async () => {
	const cell = (text: string) => `<table:table-cell><text:p>${text}</text:p></table:table-cell>`;
	const html = await readOdt(
		odt(
			`<table:table><table:table-header-rows><table:table-row>${cell('Grade')}</table:table-row></table:table-header-rows><table:table-row><table:table-cell><text:p text:style-name="Table_20_Heading">Class</text:p></table:table-cell>${cell('S355')}</table:table-row></table:table>`
		)
	);
	expect(html.match(/<t[hd]/g)).toEqual(['<th', '<th', '<td']);
});

it('what is no text says so', async () => {
	const sheet = Uint8Array.from(zipSync({ 'content.xml': strToU8('<office/>') })).buffer;
	await expect(readOdt(sheet)).rejects.toThrow('no content that can be read');
});
