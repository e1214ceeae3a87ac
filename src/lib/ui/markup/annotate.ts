import type { PDFDict, PDFDocument, PDFFont, PDFOperator, PDFPage } from '@cantoo/pdf-lib';
import {
	annotationsOf,
	inverse,
	marksFrom,
	pageMatrix,
	type Annotation,
	type Brought,
	type Matrix
} from '../../core/markup/annotations';
import { areaText, lengthText, type Mark, type Scale } from '../../core/markup/mark';
import { areaOf, lengthOf, markBox, piecesOf } from '../../core/markup/shape';
import { fromXfdf, isoDate, pdfDate, toXfdf } from '../../core/markup/xfdf';
import { dashOf, lookOf } from '../../core/markup/look';

type Lib = typeof import('@cantoo/pdf-lib');

/** A PDF with the marks that go out with it. */
export interface Annotating {
	bytes: ArrayBuffer;
	marks: Mark[];
	scales: ReadonlyMap<number, Scale>;
	/** Codes of the project's departments, in their order. */
	codes: string[];
	/** Names of people, by id. */
	names: ReadonlyMap<string, string>;
}

/** Marks that came in from a file. */
export interface BroughtIn {
	marks: Brought[];
	/** How many annotations are of kinds that there are not here, or lie on pages that there are not. */
	others: number;
}

/** Width of a mark's line on a page, as it is on screen. */
const widthOn = (page: PDFPage) => Math.max(page.getWidth(), page.getHeight()) / 460;

async function opened(lib: Lib, bytes: ArrayBuffer): Promise<PDFDocument> {
	return lib.PDFDocument.load(bytes).catch(() => {
		throw new Error('This PDF is locked or damaged; its annotations cannot be read or written.');
	});
}
function matrixOf(page: PDFPage): Matrix {
	const { x, y, width: w, height: h } = page.getCropBox();
	return pageMatrix({ x, y, w, h }, page.getRotation().angle);
}

/** Marks on the pages of a PDF, each with the annotations that say the same. */
function outgoing(pdf: PDFDocument, { marks, scales, codes, names }: Annotating) {
	const pages = pdf.getPages();
	return marks.flatMap((mark) => {
		const page = pages[mark.page - 1];
		if (!page) return [];
		const width = widthOn(page);
		const look = lookOf(mark.layer, codes);
		const scale = scales.get(mark.page) ?? null;
		const measure =
			mark.kind === 'dimension'
				? lengthText(lengthOf(mark.points), scale, 'pt')
				: mark.kind === 'area'
					? areaText(areaOf(mark.points), scale, 'pt')
					: '';
		const saying = {
			colour: look.colour,
			dash: (dashOf(look, width) ?? '').split(' ').filter(Boolean).map(Number),
			width,
			author: mark.from ?? `${names.get(mark.by) ?? 'somebody'}${mark.layer ? `, ${mark.layer}` : ''}`,
			measure
		};
		return [{ mark, page, scale, annotations: annotationsOf(mark, matrixOf(page), saying) }];
	});
}

/** The marks as XFDF, for the PDF as it is. Raises an Error whose message is a sentence. */
export async function marksAsXfdf(annotating: Annotating, fileName: string): Promise<string> {
	const lib = await import('@cantoo/pdf-lib');
	const pdf = await opened(lib, annotating.bytes);
	return toXfdf(
		outgoing(pdf, annotating).flatMap((o) => o.annotations),
		fileName
	);
}

/**
 * A copy of a PDF with the marks as standard annotations, which other programs show, list and change. Each brings its
 * own picture, so that it looks there as it does here. Raises an Error whose message is a sentence.
 */
export async function annotatedPdf(annotating: Annotating): Promise<Uint8Array> {
	const lib = await import('@cantoo/pdf-lib');
	const pdf = await opened(lib, annotating.bytes);
	const font = await pdf.embedFont(lib.StandardFonts.HelveticaBold);
	for (const { mark, page, scale, annotations } of outgoing(pdf, annotating))
		for (const [i, annotation] of annotations.entries()) {
			const one = annotations.length > 1 ? { ...mark, points: [mark.points[i]!] } : mark;
			const dict = dictOf(lib, pdf, annotation, page);
			dict.set(
				lib.PDFName.of('AP'),
				pdf.context.obj({ N: picture(lib, pdf, page, font, one, annotation, scale) })
			);
			page.node.addAnnot(pdf.context.register(dict));
		}
	return pdf.save();
}

function dictOf(lib: Lib, pdf: PDFDocument, a: Annotation, page: PDFPage): PDFDict {
	const { context } = pdf;
	const text = (said: string) => lib.PDFHexString.fromText(said);
	const flat = a.points.flatMap((p) => [p.x, p.y]);
	const colour = [1, 3, 5].map((i) => parseInt(a.colour.slice(i, i + 2), 16) / 255);
	const dict = context.obj({
		Type: 'Annot',
		Subtype: a.type,
		Rect: a.rect,
		P: page.ref,
		// Printed with the page (ISO 32000-1, table 165).
		F: 4,
		C: colour,
		CA: a.opacity,
		BS: { W: a.width, S: a.dash.length ? 'D' : 'S', ...(a.dash.length ? { D: a.dash } : {}) },
		...(a.cloudy ? { BE: { S: 'C', I: 1 } } : {}),
		...(a.intent ? { IT: a.intent } : {}),
		...(a.type === 'Line' ? { L: flat.slice(0, 4), LE: ['None', a.head ? 'ClosedArrow' : 'None'] } : {}),
		...(a.type === 'PolyLine' || a.type === 'Polygon' ? { Vertices: flat } : {}),
		...(a.type === 'Ink' ? { InkList: [flat] } : {}),
		...(a.callout.length ? { CL: a.callout.flatMap((p) => [p.x, p.y]) } : {})
	}) as PDFDict;
	for (const [key, said] of [
		['NM', a.name],
		['T', a.author],
		['Subj', a.subject],
		['Contents', a.contents]
	] as const)
		if (said) dict.set(lib.PDFName.of(key), text(said));
	dict.set(lib.PDFName.of('M'), lib.PDFString.of(pdfDate(a.at)));
	if (a.type === 'FreeText')
		dict.set(
			lib.PDFName.of('DA'),
			lib.PDFString.of(`/Helv ${a.size.toFixed(2)} Tf ${colour.map((c) => c.toFixed(3)).join(' ')} rg`)
		);
	return dict;
}

/** What an annotation looks like, drawn as the mark is drawn on screen (ISO 32000-1, 12.5.5). */
function picture(
	lib: Lib,
	pdf: PDFDocument,
	page: PDFPage,
	font: PDFFont,
	mark: Mark,
	annotation: Annotation,
	scale: Scale | null
) {
	const [r, g, b] = [1, 3, 5].map((i) => parseInt(annotation.colour.slice(i, i + 2), 16) / 255);
	const colour = lib.rgb(r!, g!, b!);
	const box = markBox(mark, mark.points);
	const operators: PDFOperator[] = [
		lib.pushGraphicsState(),
		lib.concatTransformationMatrix(...matrixOf(page))
	];
	if (mark.turn) {
		const [c, s] = [Math.cos((mark.turn * Math.PI) / 180), Math.sin((mark.turn * Math.PI) / 180)];
		const [x, y] = [box.x + box.w / 2, box.y + box.h / 2];
		operators.push(lib.concatTransformationMatrix(c, s, -s, c, x - c * x + s * y, y - s * x - c * y));
	}
	// The library draws with y upward; within the view it is turned over once more.
	operators.push(lib.concatTransformationMatrix(1, 0, 0, -1, 0, 0));
	const known = new Set(font.getCharacterSet());
	for (const piece of piecesOf(mark, mark.points, scale, 'pt')) {
		if (piece.kind === 'words') {
			piece.lines.forEach((line, i) => {
				const said = [...line].map((l) => (known.has(l.codePointAt(0)!) ? l : '?')).join('');
				const shift = piece.middle ? font.widthOfTextAtSize(said, piece.size) / 2 : 0;
				operators.push(
					lib.beginText(),
					lib.setFillingRgbColor(r!, g!, b!),
					lib.setFontAndSize('Letters', piece.size),
					lib.moveText(piece.x - shift, -(piece.y + i * piece.size * 1.3)),
					lib.showText(font.encodeText(said)),
					lib.endText()
				);
			});
			continue;
		}
		operators.push(
			...lib.drawSvgPath(piece.d, {
				x: 0,
				y: 0,
				rotate: lib.degrees(0),
				scale: undefined,
				color: piece.filled ? colour : undefined,
				borderColor: colour,
				borderWidth: annotation.width,
				borderDashArray: piece.filled || piece.plain || !annotation.dash.length ? undefined : annotation.dash,
				borderLineCap: piece.plain ? lib.LineCapStyle.Round : undefined,
				graphicsState: piece.plain ? 'Wash' : undefined
			})
		);
	}
	operators.push(lib.popGraphicsState());
	const form = pdf.context.formXObject(operators, {
		BBox: pdf.context.obj(annotation.rect),
		Resources: pdf.context.obj({
			Font: { Letters: font.ref },
			ExtGState: { Wash: { Type: 'ExtGState', CA: annotation.opacity, ca: annotation.opacity } }
		})
	});
	return pdf.context.register(form);
}

/**
 * Marks out of an XFDF file, or out of the annotations of a PDF, for the pages of the PDF that is looked at.
 * Raises an Error whose message is a sentence.
 * @param sheet bytes of the PDF that is looked at
 */
export async function marksIn(file: File, sheet: ArrayBuffer): Promise<BroughtIn> {
	const lib = await import('@cantoo/pdf-lib');
	const pages = (await opened(lib, sheet)).getPages();
	const bytes = await file.arrayBuffer();
	const isPdf = new TextDecoder('latin1').decode(bytes.slice(0, 1024)).includes('%PDF-');
	const { annotations, others } = isPdf
		? annotationsIn(lib, await opened(lib, bytes))
		: fromXfdf(new TextDecoder().decode(bytes));
	let strange = others;
	const marks = annotations.flatMap((annotation, at) => {
		const page = pages[annotation.page - 1];
		const made = page ? marksFrom(annotation, inverse(matrixOf(page)), String(at)) : [];
		if (!made.length) strange++;
		return made;
	});
	return { marks, others: strange };
}

const TYPES: readonly Annotation['type'][] = [
	'Line',
	'PolyLine',
	'Polygon',
	'Square',
	'Circle',
	'Ink',
	'FreeText'
];
/** Annotations that are no marks of people: links, fields of forms, and the windows of notes. */
const NO_MARKS = new Set(['Link', 'Widget', 'Popup']);

/** The annotations of a PDF. */
function annotationsIn(lib: Lib, pdf: PDFDocument): { annotations: Annotation[]; others: number } {
	const { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, PDFString } = lib;
	const annotations: Annotation[] = [];
	let others = 0;
	pdf.getPages().forEach((page, at) => {
		for (const entry of page.node.Annots()?.asArray() ?? []) {
			const dict = pdf.context.lookup(entry);
			if (!(dict instanceof PDFDict)) continue;
			const get = (key: string, from: PDFDict = dict) => from.lookup(PDFName.of(key));
			const name = (key: string) => {
				const value = get(key);
				return value instanceof PDFName ? value.decodeText() : '';
			};
			const said = (key: string) => {
				const value = get(key);
				return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : '';
			};
			const numbers = (value: unknown): number[] =>
				value instanceof PDFArray
					? value
							.asArray()
							.map((one) => pdf.context.lookup(one))
							.flatMap((one) => (one instanceof PDFNumber ? [one.asNumber()] : []))
					: [];
			const points = (list: number[]) =>
				Array.from({ length: Math.floor(list.length / 2) }, (_, i) => ({
					x: list[2 * i]!,
					y: list[2 * i + 1]!
				}));
			const type = TYPES.find((one) => one === name('Subtype'));
			if (!type) {
				if (!NO_MARKS.has(name('Subtype'))) others++;
				continue;
			}
			const ink = get('InkList');
			const strokes =
				ink instanceof PDFArray ? ink.asArray().map((one) => points(numbers(pdf.context.lookup(one)))) : [];
			const rect = numbers(get('Rect'));
			const border = get('BS');
			const effect = get('BE');
			const ends = get('LE');
			const arrows =
				ends instanceof PDFArray
					? ends.asArray().map((one) => /Arrow/.test(one instanceof PDFName ? one.decodeText() : ''))
					: [];
			const line = points(numbers(get('L')));
			const colour = numbers(get('C'));
			const number = (value: unknown, otherwise: number) =>
				value instanceof PDFNumber ? value.asNumber() : otherwise;
			annotations.push({
				type,
				page: at + 1,
				name: said('NM'),
				rect: [rect[0] ?? 0, rect[1] ?? 0, rect[2] ?? 0, rect[3] ?? 0],
				points:
					type === 'Line'
						? arrows[0] && !arrows[1]
							? line.reverse()
							: line
						: type === 'Ink'
							? (strokes[0] ?? [])
							: points(numbers(get('Vertices'))),
				...(type === 'Ink' && strokes.length > 1 ? { strokes: strokes.slice(1) } : {}),
				callout: points(numbers(get('CL'))),
				contents: said('Contents').replace(/\r\n?/g, '\n'),
				author: said('T'),
				subject: said('Subj'),
				at: isoDate(said('M')) ?? '',
				colour: `#${(colour.length === 3 ? colour : [0.7, 0.2, 0.12])
					.map((c) =>
						Math.round(c * 255)
							.toString(16)
							.padStart(2, '0')
					)
					.join('')}`,
				width: border instanceof PDFDict ? number(get('W', border), 1) : 1,
				dash: [],
				opacity: number(get('CA'), 1),
				cloudy: effect instanceof PDFDict && String(get('S', effect)) === '/C',
				head: arrows.some(Boolean),
				intent: name('IT'),
				size: Number(/([\d.]+)\s+Tf/.exec(said('DA'))?.[1]) || 12
			});
		}
	});
	return { annotations, others };
}
