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
import sharp from 'sharp';
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
	at: Date
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
	return save(pdf, title, at);
}

/** A text as DOCX with headings and a table of its status. */
export async function docx(number: string, title: string, label: string, edit: number): Promise<Uint8Array> {
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
		])
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

export function markdown(number: string, title: string, edit: number): string {
	return (
		`# ${title}\n\n\`${number}\`\n\n` +
		clauses(title, edit)
			.map((c) => `## ${c.head}\n\n${c.body.map((b) => `- ${b}`).join('\n')}\n`)
			.join('\n')
	);
}

/** A photograph of the site as a picture with EXIF: sea, sky, quay, and what the title is about. */
export async function photograph(title: string, at: Date): Promise<Uint8Array> {
	const r = new Random(title);
	const dusk = r.chance(0.3);
	const horizon = 330 + r.int(0, 60);
	const sky = dusk ? ['#5a6b86', '#e0b48a'] : ['#9fb9cc', '#e3ebee'];
	const parts: string[] = [];
	for (let i = 0; i < 14; i++)
		parts.push(
			`<path d="M${r.int(0, 1200)} ${horizon + r.int(10, 160)}h${r.int(30, 140)}" stroke="#fff" stroke-opacity=".25" stroke-width="${r.int(1, 3)}"/>`
		);
	const deck = horizon + 140;
	parts.push(
		`<path d="M0 ${deck}L1200 ${deck - 40}V800H0z" fill="#8d8a83"/><path d="M0 ${deck}L1200 ${deck - 40}v22L0 ${deck + 24}z" fill="#6f6c66"/>`
	);
	for (let i = 0; i < r.int(2, 5); i++) {
		const x = 80 + i * r.int(190, 260);
		parts.push(
			`<rect x="${x}" y="${horizon - r.int(80, 220)}" width="${r.int(14, 30)}" height="420" fill="#4c5359"/><path d="M${x + 8} ${horizon - 120}l${r.int(160, 320)} ${r.int(30, 120)}" stroke="#4c5359" stroke-width="9"/>`
		);
	}
	const pieces = r.int(3, 7);
	for (let i = 0; i < pieces; i++)
		parts.push(
			`<rect x="${r.int(40, 1000)}" y="${deck + r.int(50, 210)}" width="${r.int(60, 220)}" height="${r.int(24, 90)}" rx="3" fill="${r.pick(['#b4572f', '#39586b', '#c9a24a', '#7b7f6f'])}"/>`
		);
	parts.push(`<rect y="${deck - 10}" x="${r.int(100, 900)}" width="16" height="70" rx="5" fill="#c0392b"/>`);
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800"><defs><linearGradient id="s" x2="0" y2="1"><stop stop-color="${sky[0]}"/><stop offset="1" stop-color="${sky[1]}"/></linearGradient></defs><rect width="1200" height="${horizon}" fill="url(#s)"/><rect y="${horizon}" width="1200" height="500" fill="#47687a"/>${parts.join('')}</svg>`;
	const stamp = at
		.toISOString()
		.replace(/-/g, ':')
		.replace(/T(.{8}).*/, ' $1');
	return new Uint8Array(
		await sharp(Buffer.from(svg))
			.withExif({
				IFD0: { Make: 'Vennholm', Model: 'Site camera', ImageDescription: title, DateTime: stamp },
				IFD2: { DateTimeOriginal: stamp },
				IFD3: {
					GPSLatitudeRef: 'N',
					GPSLatitude: '57/1 18/1 0/1',
					GPSLongitudeRef: 'E',
					GPSLongitude: '11/1 2/1 0/1'
				}
			})
			.jpeg({ quality: 82 })
			.toBuffer()
	);
}
