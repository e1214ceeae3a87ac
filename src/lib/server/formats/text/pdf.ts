import type { Content, TableCell } from 'pdfmake/interfaces';
import type { Node } from 'prosemirror-model';
import { numbersIn } from '../../../core/text/numbers';
import { pdfmaker } from '../pdfmaker';
import { sizeOnPage, spansOf, type Picture } from './parts';
import type { About } from '../../../core/files/media';

const HEAD_SIZES = [16, 13, 11.5, 10.5];

/** Writes a text as PDF on A4, with number and page at the foot of every page and an outline of its headings. */
export async function toPdf(
	text: Node,
	about: About,
	pictures: ReadonlyMap<string, Picture>
): Promise<Uint8Array> {
	const numbers = numbersIn(text);

	const inline = (block: Node): Content[] =>
		spansOf(block).map((span) => ({
			text: span.lineBreak ? '\n' : span.text,
			bold: span.strong,
			italics: span.em,
			...(span.script === 'super' ? { sup: true } : span.script === 'sub' ? { sub: true } : {}),
			...(span.href
				? { link: span.href, decoration: 'underline' as const }
				: span.underline
					? { decoration: 'underline' as const }
					: span.strike
						? { decoration: 'lineThrough' as const }
						: {})
		}));

	const table = (node: Node): Content => {
		const rows: TableCell[][] = [];
		let heads = 0;
		node.forEach((row, _, at) => {
			const cells = (rows[at] ??= []);
			let column = 0;
			let onlyHeads = true;
			row.forEach((cell) => {
				while (cells[column]) column++;
				const { colspan, rowspan } = cell.attrs as { colspan: number; rowspan: number };
				const head = cell.type.name === 'table_header';
				onlyHeads &&= head;
				for (let down = 0; down < rowspan; down++)
					for (let right = 0; right < colspan; right++) (rows[at + down] ??= [])[column + right] = '';
				cells[column] = {
					stack: blocks(cell),
					colSpan: colspan,
					rowSpan: rowspan,
					...(head ? { fillColor: '#e9eeea', bold: true } : {})
				};
			});
			if (onlyHeads && heads === at) heads = at + 1;
		});
		const columns = Math.max(1, ...rows.map((r) => r.length));
		for (const row of rows) for (let i = 0; i < columns; i++) row[i] ??= '';
		return {
			table: { body: rows, headerRows: heads, widths: Array<string>(columns).fill('*') },
			layout: {
				hLineWidth: () => 0.5,
				vLineWidth: () => 0.5,
				hLineColor: () => '#9aa8a0',
				vLineColor: () => '#9aa8a0'
			},
			margin: [0, 2, 0, 8]
		};
	};

	const items = (node: Node): Content[] => {
		const found: Content[] = [];
		node.forEach((item) => found.push({ stack: blocks(item) }));
		return found;
	};

	const block = (node: Node, number: string | undefined): Content => {
		switch (node.type.name) {
			case 'heading': {
				const level = node.attrs.level as number;
				return {
					text: [number ? `${number}  ` : '', ...inline(node)],
					fontSize: HEAD_SIZES[level - 1],
					bold: true,
					margin: [0, 16 - level * 2, 0, 4],
					headlineLevel: level,
					outline: true,
					outlineText: `${number ?? ''} ${node.textContent}`.trim()
				} as Content;
			}
			case 'bullet_list':
				return { ul: items(node), margin: [0, 0, 0, 5] };
			case 'ordered_list':
				return { ol: items(node), margin: [0, 0, 0, 5] };
			case 'table':
				return table(node);
			case 'picture': {
				const picture = pictures.get(node.attrs.content as string);
				if (!picture) return { text: node.attrs.alt as string, italics: true };
				const kind = picture.kind === 'jpg' ? 'jpeg' : 'png';
				return {
					image: `data:image/${kind};base64,${picture.bytes.toString('base64')}`,
					...sizeOnPage(picture, node.attrs.width as number),
					margin: [0, 4, 0, 4]
				};
			}
			case 'caption':
				return {
					text: [{ text: `${number ?? ''}  `, bold: true }, ...inline(node)],
					fontSize: 9,
					color: '#55645d',
					margin: [0, 0, 0, 8]
				};
			case 'page_break':
				return { text: '', pageBreak: 'after' };
			default:
				return { text: inline(node), margin: [0, 0, 0, 5] };
		}
	};
	const blocks = (parent: Node): Content[] => {
		const found: Content[] = [];
		parent.forEach((node, offset) => found.push(block(node, numbers.get(offset))));
		return found;
	};

	return pdfmaker({
		info: { title: `${about.number} ${about.title}`, creator: 'Cupboard' },
		pageSize: 'A4',
		pageMargins: [71, 64, 71, 64],
		content: blocks(text),
		defaultStyle: { font: 'Archivo', fontSize: 10.5, lineHeight: 1.25, color: '#17231f' },
		footer: (page, pages) => ({
			columns: [
				{ text: `${about.number}  ${about.title}` },
				{ text: `${page} of ${pages}`, alignment: 'right', width: 60 }
			],
			fontSize: 8,
			color: '#55645d',
			margin: [71, 22, 71, 0]
		}),
		// A heading does not stand alone at the foot of a page.
		pageBreakBefore: (node, follow) =>
			node.headlineLevel !== undefined && follow.getFollowingNodesOnPage().length === 0
	});
}
