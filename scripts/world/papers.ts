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

interface Clause {
	head: string;
	body: string[];
}

const CLAUSES: Record<string, Clause[]> = {
	SP: [
		{
			head: 'Scope',
			body: [
				'This specification covers the supply, fabrication and erection of the works named in its title at Vennholm Ferry Terminal.',
				'It is read with the drawings listed in the register; where they differ, the drawing with the later issued revision holds.'
			]
		},
		{
			head: 'Materials',
			body: [
				'Structural steel is S355 J2 with inspection certificates 3.1. Bolts are grade 10.9, hot-dip galvanised.',
				'Concrete in the splash zone is C40/50, exposure class XS3, with a nominal cover of 60 mm.'
			]
		},
		{
			head: 'Workmanship',
			body: [
				'Execution class EXC3 applies to all members of the linkspan and its lifting towers.',
				'Welds are tested to the extent shown on the drawings; a failed weld doubles the extent for that welder.'
			]
		},
		{
			head: 'Corrosion protection',
			body: [
				'Surfaces are blast-cleaned to Sa 2½. The system is a zinc-rich primer, 60 microns, and two coats of epoxy, 400 microns in all.',
				'Damage from erection is made good within five working days and recorded on the daily record.'
			]
		},
		{
			head: 'Tolerances',
			body: [
				'Hinge pins are set out to 2 mm in plan and 1 mm in level, measured at 10 degrees.',
				'Pile heads lie within 75 mm of the position shown.'
			]
		},
		{
			head: 'Handing over',
			body: [
				'As-built drawings and test certificates are handed to document control before the taking-over inspection.'
			]
		}
	],
	CA: [
		{
			head: 'Basis',
			body: [
				'Loads follow the basis of design: 44 t lorries in two lanes, nose to tail, and 5 kN per square metre of crowd loading.',
				'The range of levels is +0.20 to +3.40 with 300 mm of freeboard variation of the ferry.'
			]
		},
		{
			head: 'Model',
			body: [
				'The member is taken as simply supported with the span shown on the general arrangement.',
				'Second-order effects are covered by the amplification of sway moments.'
			]
		},
		{
			head: 'Results',
			body: [
				'The governing case is the braking lorry at midspan with the bridge at its highest level.',
				'Deflection under the frequent combination stays under span over 400.'
			]
		},
		{
			head: 'Conclusion',
			body: [
				'The section shown is adequate. The end stiffeners are to be thickened as marked on the drawing.'
			]
		}
	],
	RP: [
		{
			head: 'Purpose',
			body: ['This report sets out what was found, what it means for the works, and what is proposed.']
		},
		{
			head: 'Findings',
			body: [
				'The sheet piles of the old quay are sound below -3.0 and lose up to 4 mm of thickness in the splash zone.',
				'Two buried cable routes cross the line of the new drainage run.'
			]
		},
		{
			head: 'Proposals',
			body: [
				'Move the drainage run 1.2 m landward between chainages 40 and 85.',
				'Measure thickness again in spring, at the same twelve points.'
			]
		}
	],
	MN: [
		{
			head: 'Present',
			body: ['Ines Maddock, Halla Brandt, Tomas Verrin, Oke Lindvar, Dario Fenn, Wren Ostrow.']
		},
		{
			head: 'Matters arising',
			body: [
				'Pit wall: Marine works to move it towards the quay and reissue the general arrangement.',
				'Cable duct: Building services to drop it by 200 mm.'
			]
		},
		{
			head: 'Programme',
			body: ['The substructure goes out for construction after the department checks are complete.']
		}
	]
};

function clauses(type: string, title: string, edit: number): Clause[] {
	const list = (CLAUSES[type] ?? CLAUSES.RP!).map((c) => ({ ...c, body: [...c.body] }));
	const r = new Random(title);
	const changes = [
		'Thickness is measured at three points of each member.',
		'The inspection is announced two working days ahead.',
		'Hold point: no concrete is placed before the release of the reinforcement.',
		'The value was checked independently by Structures.',
		'This clause replaces the one sent with the tender.'
	];
	for (let i = 1; i < edit; i++)
		list[(i + r.int(0, 5)) % list.length]!.body.push(changes[(i - 1) % changes.length]!);
	list[0]!.body.unshift(`${title}.`);
	return list;
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
	const parts = clauses(type, title, edit);
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
export async function docx(
	type: string,
	number: string,
	title: string,
	label: string,
	edit: number
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
		...clauses(type, title, edit).flatMap((c) => [
			new Paragraph({ text: c.head, heading: HeadingLevel.HEADING_1 }),
			...c.body.map((b) => new Paragraph(b))
		])
	];
	return new Uint8Array(
		await Packer.toBuffer(new Document({ title, creator: 'Vennholm', sections: [{ children }] }))
	);
}

/** Rows of a schedule: what a list of doors, piles, pins or luminaires holds. */
function scheduleRows(title: string, edit: number): (string | number)[][] {
	const r = new Random(title);
	const rows: (string | number)[][] = [['Mark', 'Place', 'Size', 'Material', 'Count', 'Note']];
	const count = r.int(18, 40) + Math.max(0, edit - 3);
	for (let i = 1; i <= count; i++) {
		const touched = i % 7 === edit % 7;
		rows.push([
			`${title[0]!.toUpperCase()}${String(i).padStart(3, '0')}`,
			`Grid ${r.int(1, 7)}/${r.pick(['A', 'B', 'C', 'D'])}`,
			`${r.int(6, 30) * 50 + (touched ? 50 * (edit - 1) : 0)} x ${r.int(4, 24) * 50}`,
			r.pick(['S355', 'C40/50', 'Oak', 'Aluminium', 'Stainless 1.4404']),
			r.int(1, 12),
			touched && edit > 1 ? 'changed' : ''
		]);
	}
	return rows;
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

export function markdown(type: string, number: string, title: string, edit: number): string {
	return (
		`# ${title}\n\n\`${number}\`\n\n` +
		clauses(type, title, edit)
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
