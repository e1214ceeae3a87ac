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

const COUNTS =
	'<text:list-style style:name="L1"><text:list-level-style-number text:level="1" style:num-format="1"/><text:list-level-style-bullet text:level="2"/></text:list-style><text:list-style style:name="L2"><text:list-level-style-bullet text:level="1"/><text:list-level-style-bullet text:level="2"/><text:list-level-style-number text:level="3" style:num-format="a"/></text:list-style>';
const list = (style: string, ...items: string[]) =>
	`<text:list${style && ` text:style-name="${style}"`}>${items.map((item) => `<text:list-item>${item}</text:list-item>`).join('')}</text:list>`;
const p = (text: string) => `<text:p>${text}</text:p>`;

it('a list within another is that also when it was written as one of its own, and the outer one goes on', async () => {
	const html = await readOdt(
		odt(
			list('L1', p('one')) +
				list('L2', list('', p('one a'), p('one b'))) +
				list('L2', list('', list('', p('one b i')))) +
				list('L1', p('two')) +
				p('between') +
				list('L1', p('three')),
			'',
			COUNTS
		)
	);
	expect(html).toBe(
		'<ol><li><p>one</p><ul><li><p>one a</p></li><li><p>one b</p><ol><li><p>one b i</p></li></ol></li></ul></li><li><p>two</p></li></ol><p>between</p><ol><li><p>three</p></li></ol>'
	);
});

it('two lists in a row stay two when nothing says that they are one', async () => {
	const html = await readOdt(odt(list('L1', p('a')) + list('L2', p('b')) + list('L1', p('c')), '', COUNTS));
	expect(html.match(/<[uo]l>/g)).toEqual(['<ol>', '<ul>', '<ol>']);
});

it('an item may say that it goes on with the list before', async () => {
	const html = await readOdt(
		odt(
			list('L1', p('one')) +
				list('L2', list('', p('a')), p('two')).replace(
					/<text:list-item>(?=<text:p>two)/,
					'<text:list-item text:style-override="L1">'
				),
			'',
			COUNTS
		)
	);
	expect(html).toBe('<ol><li><p>one</p><ul><li><p>a</p></li></ul></li><li><p>two</p></li></ol>');
});

it('headings that are numbered as lists are headings, however deep', async () => {
	const html = await readOdt(
		odt(
			list('L1', '<text:h text:outline-level="1">Scope</text:h>') +
				list('L1', list('', '<text:p text:style-name="P9">Materials</text:p>')) +
				p('Steel'),
			'<style:style style:name="Heading_20_2" style:family="paragraph"/>',
			`${COUNTS}<style:style style:name="P9" style:family="paragraph" style:parent-style-name="Heading_20_2"/>`
		)
	);
	expect(html).toBe('<h1>Scope</h1><h2>Materials</h2><p>Steel</p>');
});

it('words look as their paragraph does, as far as they do not say otherwise; links are not underlined', async () => {
	const html = await readOdt(
		odt(
			'<text:p text:style-name="P1">all <text:span text:style-name="T1">not</text:span><text:a xlink:href="https://x.example"><text:span text:style-name="T2">link</text:span></text:a></text:p>',
			'',
			'<style:style style:name="P1" style:family="paragraph"><style:text-properties fo:font-weight="bold" style:text-position="super 58%"/></style:style><style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="normal" style:text-position="0% 100%"/></style:style><style:style style:name="T2" style:family="text"><style:text-properties fo:font-weight="normal" style:text-underline-style="solid" style:text-position="0% 100%"/></style:style>'
		)
	);
	expect(html).toBe('<p><strong><sup>all </sup></strong>not<a href="https://x.example">link</a></p>');
});
