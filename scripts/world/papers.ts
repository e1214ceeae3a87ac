import {
	PDFDocument,
	StandardFonts,
	rgb,
	pushGraphicsState,
	popGraphicsState,
	moveTo,
	lineTo,
	stroke,
	setLineWidth,
	setStrokingRgbColor,
	setDashPattern,
	degrees
} from '@cantoo/pdf-lib';
import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow, WidthType } from 'docx';
import ExcelJS from '@protobi/exceljs';
import { readDxf } from '../../src/lib/core/dxf/read';
import { flatten } from '../../src/lib/core/dxf/flatten';
import { Random } from './random';
import { scheduleRows } from './schedules';
import { clauses } from './texts';

const MM = 72 / 25.4;

/** Prints a drawing as a PDF sheet (A1, vectors and text). */
export async function pdfSheet(dxf: string, title: string, at: Date): Promise<Uint8Array> {
	const sheet = flatten(readDxf(dxf));
	const pdf = await PDFDocument.create();
	const font = await pdf.embedFont(StandardFonts.Helvetica);
	const page = pdf.addPage([841 * MM, 594 * MM]);
	const [left, bottom, right] = sheet.box;
	const k = (821 * MM) / (right - left);
	const x = (v: number) => (v - left) * k + 10 * MM;
	const y = (v: number) => (v - bottom) * k + 10 * MM;
	const part = (colour: number, shift: number) => (colour < 0 ? 0.1 : ((colour >> shift) & 255) / 255);
	page.pushOperators(pushGraphicsState());
	for (const s of sheet.strokes) {
		page.pushOperators(
			setLineWidth(s.weight * MM),
			setStrokingRgbColor(part(s.colour, 16), part(s.colour, 8), part(s.colour, 0)),
			setDashPattern(
				s.dash.map((d) => Math.max(0.1, d * k)),
				0
			)
		);
		page.pushOperators(moveTo(x(s.points[0]!), y(s.points[1]!)));
		for (let i = 2; i < s.points.length; i += 2)
			page.pushOperators(lineTo(x(s.points[i]!), y(s.points[i + 1]!)));
		page.pushOperators(stroke());
	}
	page.pushOperators(popGraphicsState());
	for (const t of sheet.texts) {
		const size = t.height * k * 1.35;
		const width = font.widthOfTextAtSize(t.text, size) * t.alignX;
		page.drawText(t.text, {
			x: x(t.x) - Math.cos(t.turn) * width,
			y: y(t.y) - Math.sin(t.turn) * width,
			size,
			font,
			rotate: degrees((t.turn * 180) / Math.PI),
			color: rgb(part(t.colour, 16), part(t.colour, 8), part(t.colour, 0))
		});
	}
	return save(pdf, title, at);
}

function save(pdf: PDFDocument, title: string, at: Date): Promise<Uint8Array> {
	pdf.setTitle(title);
	pdf.setProducer('Vennholm drawing office');
	pdf.setCreator('Vennholm drawing office');
	pdf.setCreationDate(at);
	pdf.setModificationDate(at);
	return pdf.save();
}

/** A text as a PDF of A4 pages. */
export async function pdfText(
	type: string,
	number: string,
	title: string,
	edit: number,
	at: Date,
	besides: readonly string[] = []
): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	const font = await pdf.embedFont(StandardFonts.Helvetica);
	const bold = await pdf.embedFont(StandardFonts.HelveticaBold);
	const parts = clauses(title, edit);
	const r = new Random(number);
	let page = pdf.addPage([595.28, 841.89]);
	let y = 770;
	const write = (text: string, size: number, f = font) => {
		const words = text.split(' ');
		let line = '';
		const flush = () => {
			if (y < 70) {
				page = pdf.addPage([595.28, 841.89]);
				y = 780;
			}
			page.drawText(line, { x: 60, y, size, font: f });
			y -= size * 1.5;
			line = '';
		};
		for (const word of words) {
			if (f.widthOfTextAtSize(`${line} ${word}`, size) > 475) flush();
			line = line ? `${line} ${word}` : word;
		}
		if (line) flush();
	};
	write(number, 9);
	y -= 12;
	write(title, 18, bold);
	y -= 14;
	parts.forEach((c, i) => {
		write(`${i + 1} ${c.head}`, 13, bold);
		for (const body of c.body) write(body, 10.5);
		if (type === 'CA')
			for (let k = 0; k < 6; k++)
				write(
					`${i + 1}.${k + 1}   N = ${r.int(200, 4200)} kN    M = ${r.int(40, 900)} kNm    utilisation 0.${r.int(41, 96)}`,
					9.5
				);
		y -= 12;
	});
	if (besides.length) {
		write('Read with', 13, bold);
		for (const one of besides) write(one, 10.5);
	}
	return save(pdf, title, at);
}

/** A text as DOCX with headings and a table of its status. */
export async function docx(
	number: string,
	title: string,
	label: string,
	edit: number,
	besides: readonly string[] = []
): Promise<Uint8Array> {
	const cell = (text: string) =>
		new TableCell({ children: [new Paragraph(text)], width: { size: 4500, type: WidthType.DXA } });
	const children = [
		new Paragraph({ text: title, heading: HeadingLevel.TITLE }),
		new Table({
			rows: [
				['Number', number],
				['Revision', label]
			].map(([a, b]) => new TableRow({ children: [cell(a!), cell(b!)] }))
		}),
		...clauses(title, edit).flatMap((c) => [
			new Paragraph({ text: c.head, heading: HeadingLevel.HEADING_1 }),
			...c.body.map((b) => new Paragraph(b))
		]),
		...(besides.length
			? [
					new Paragraph({ text: 'Read with', heading: HeadingLevel.HEADING_1 }),
					...besides.map((one) => new Paragraph(one))
				]
			: [])
	];
	return new Uint8Array(
		await Packer.toBuffer(new Document({ title, creator: 'Vennholm', sections: [{ children }] }))
	);
}

export async function xlsx(number: string, title: string, label: string, edit: number): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook();
	book.created = book.modified = new Date(Date.UTC(2026, 0, 1));
	const sheet = book.addWorksheet('Schedule');
	sheet.addRow([number, title, label]);
	for (const row of scheduleRows(title, edit)) sheet.addRow(row);
	sheet.getRow(2).font = { bold: true };
	sheet.columns.forEach((c) => (c.width = 18));
	return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer);
}

export function csv(title: string, edit: number): string {
	return (
		scheduleRows(title, edit)
			.map((row) =>
				row.map((v) => (/[",\n]/.test(String(v)) ? `"${String(v).replace(/"/g, '""')}"` : v)).join(',')
			)
			.join('\r\n') + '\r\n'
	);
}

export function markdown(
	number: string,
	title: string,
	edit: number,
	besides: readonly string[] = []
): string {
	return (
		`# ${title}\n\n\`${number}\`\n\n` +
		clauses(title, edit)
			.map((c) => `## ${c.head}\n\n${c.body.map((b) => `- ${b}`).join('\n')}\n`)
			.join('\n') +
		(besides.length ? `\n## Read with\n\n${besides.map((one) => `- ${one}`).join('\n')}\n` : '')
	);
}
