import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import mammoth from 'mammoth';
import type { Node } from 'prosemirror-model';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { textSchema } from '../../../core/text/schema';
import { writeTextTask } from './task';
import type { TextFormat } from '../../../core/text/losses';

const words = (text: string, ...marks: string[]) =>
	textSchema.text(
		text,
		marks.map((m) => textSchema.mark(m))
	);
const block = (type: string, attrs: Record<string, unknown> | null, ...content: Node[]) =>
	textSchema.node(type, attrs, content);
const p = (...content: (Node | string)[]) =>
	block('paragraph', null, ...content.map((c) => (typeof c === 'string' ? words(c) : c)));
const HASH = 'a'.repeat(64);

/** A text with everything that a text can hold. */
const EVERYTHING = block(
	'doc',
	null,
	block('heading', { level: 1 }, words('Scope')),
	p(
		'The ',
		words('linkspan', 'strong'),
		' & its ',
		words('hinge', 'em', 'underline'),
		', H',
		words('2', 'subscript'),
		'O.'
	),
	block('heading', { level: 2 }, words('Materials')),
	block(
		'bullet_list',
		null,
		block(
			'list_item',
			null,
			p('Steel S355'),
			block('ordered_list', null, block('list_item', null, p('Plates')), block('list_item', null, p('Bolts')))
		),
		block('list_item', null, p('Concrete'))
	),
	block(
		'table',
		null,
		block(
			'table_row',
			null,
			block('table_header', { colspan: 2 }, p('Grade')),
			block('table_header', null, p('Use'))
		),
		block(
			'table_row',
			null,
			block('table_cell', { rowspan: 2 }, p('S355')),
			block('table_cell', null, p('J2')),
			block('table_cell', null, p('Deck'))
		),
		block('table_row', null, block('table_cell', null, p('K2')), block('table_cell', null, p('Hinge | pin')))
	),
	block('caption', { of: 'table' }, words('Grades of steel')),
	block('picture', { content: HASH, alt: 'The hinge', width: 50 }),
	block('caption', { of: 'figure' }, words('The hinge from below')),
	block('page_break', null),
	p(
		'See ',
		textSchema.node('document_link', { document: '2345678922', number: 'VFT-MW-LS-00-DR-0101' }),
		' and ',
		textSchema.text('the notice', [textSchema.mark('link', { href: 'https://harbour.example/notice' })]),
		textSchema.text(' soon', [textSchema.mark('insertion', { id: 'rhosyn.1' })]),
		textSchema.text(' later', [textSchema.mark('deletion', { id: 'rhosyn.2' })]),
		'.'
	)
);

const folder = mkdtempSync(join(tmpdir(), 'cupboard-texts-'));

async function write(format: TextFormat, text = EVERYTHING): Promise<Uint8Array> {
	const path = join(folder, 'hinge.png');
	writeFileSync(
		path,
		await sharp({ create: { width: 60, height: 40, channels: 3, background: '#0b6b58' } })
			.png()
			.toBuffer()
	);
	return writeTextTask({
		task: 'text',
		json: text.toJSON() as unknown,
		about: { number: 'VFT-ST-LS-00-SP-0001', title: 'Steel & concrete' },
		format,
		pictures: { [HASH]: path },
		names: { rhosyn: 'Rhosyn Hale' }
	});
}

describe('a live text as a file', () => {
	it('is DOCX with headings, lists, cells that span, pictures, and tracked changes', async () => {
		const bytes = await write('docx');
		const { value: html } = await mammoth.convertToHtml({ arrayBuffer: Uint8Array.from(bytes).buffer });
		expect(html).toContain('<h1>Scope</h1>');
		expect(html).toContain('<h2>Materials</h2>');
		expect(html).toContain(
			'<ul><li>Steel S355<ol><li>Plates</li><li>Bolts</li></ol></li><li>Concrete</li></ul>'
		);
		expect(html).toContain('colspan="2"');
		expect(html).toContain('rowspan="2"');
		expect(html).toContain('src="data:image/png;base64');
		expect(html).toContain('href="https://harbour.example/notice"');
		const xml = strFromU8(unzipSync(bytes)['word/document.xml']!);
		expect(xml).toMatch(/<w:ins [^>]*w:author="Rhosyn Hale"/);
		expect(xml).toMatch(/<w:del [^>]*w:author="Rhosyn Hale"/);
	});

	it('is ODT: its kind first and plain, cells that are reached over named', async () => {
		const bytes = await write('odt');
		expect(strFromU8(bytes.subarray(30, 38))).toBe('mimetype');
		const parts = unzipSync(bytes);
		const xml = strFromU8(parts['content.xml']!);
		expect(xml).toContain('<text:h text:style-name="Heading_20_2" text:outline-level="2">Materials</text:h>');
		expect(xml.match(/<table:covered-table-cell\/>/g)).toHaveLength(2);
		expect(xml).toContain('&#38;');
		expect(xml).not.toContain(' soon');
		expect(xml).toContain('/>later.');
		expect(Object.keys(parts)).toContain('Pictures/aaaaaaaaaaaaaaaa.png');
	});

	it('is PDF that can be searched and has an outline', async () => {
		const path = join(folder, 'text.pdf');
		writeFileSync(path, await write('pdf'));
		expect(spawnSync('pdfinfo', [path], { encoding: 'utf8' }).stdout).toMatch(/Pages:\s+2/);
		const { stdout } = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
		for (const said of [
			'1 Scope',
			'1.1 Materials',
			'Table 1',
			'Figure 1',
			'Hinge | pin',
			'2 of 2',
			'Steel & concrete'
		])
			expect(stdout.replace(/ +/g, ' ')).toContain(said);
	});

	it('is Markdown with tables, and HTML with its pictures inside', async () => {
		const markdown = new TextDecoder().decode(await write('md'));
		expect(markdown).toContain('# Scope');
		expect(markdown).toContain('- Steel S355');
		expect(markdown).toContain('   1. Plates'.trimStart());
		expect(markdown).toContain('| K2 | Hinge \\| pin |');
		const html = new TextDecoder().decode(await write('html'));
		expect(html).toContain('<th colspan="2"><p>Grade</p>');
		expect(html).toContain('data:image/png;base64');
		expect(html).toContain('<b data-number>Figure 1</b> The hinge from below');
	});

	it('never says what the text only holds as a name', async () => {
		const sly = block('doc', null, p('<script>alert(1)</script>'));
		expect(new TextDecoder().decode(await write('html', sly))).toContain('&#60;script&#62;');
		expect(strFromU8(unzipSync(await write('odt', sly))['content.xml']!)).not.toContain('<script');
	});
});
