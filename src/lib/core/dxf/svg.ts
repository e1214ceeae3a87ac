import type { Flat } from './curves';
import type { Gradient } from './gradient';
import { LETTER_SIZE } from './letters';
import { isDot, type Sheet } from './sheet';

const INK = '#17231f';
/** Most lines of one path. */
const MOST_JOINED = 500;

function css(colour: number): string {
	return colour < 0 ? INK : '#' + colour.toString(16).padStart(6, '0');
}

function escapeXml(text: string): string {
	return text
		.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
		.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
}

/**
 * Pixels of a line's weight in a picture so many pixels across. In a small one the weights that drawings use (0.13 to
 * 1 mm) stay apart, from a hair to what stands out; in a large one they are what they would be on an A2 sheet.
 */
function lineWidth(weight: number, across: number): number {
	return Math.max((weight * across) / 420, Math.min(0.3 + weight * 1.4, 1.8));
}

function gradient(
	id: string,
	{ way, ends, colours }: Gradient,
	x: (v: number) => string,
	y: (v: number) => string
): string {
	const stops = colours
		.map((c, i) => `<stop offset="${i / (colours.length - 1)}" stop-color="${css(c)}"/>`)
		.join('');
	const [x1, y1, x2, y2] = [x(ends[0]!), y(ends[1]!), x(ends[2]!), y(ends[3]!)];
	if (way === 'along')
		return `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}">${stops}</linearGradient>`;
	const r = Math.hypot(Number(x2) - Number(x1), Number(y2) - Number(y1)).toFixed(1);
	return `<radialGradient id="${id}" gradientUnits="userSpaceOnUse" cx="${x1}" cy="${y1}" r="${r}">${stops}</radialGradient>`;
}

/**
 * Draws a flattened drawing as SVG on white, for previews.
 *
 * @param width pixels across; the height follows from the drawing, up to four times the width
 * @param edge white around the drawing, as a share of its longer side
 */
export function sheetToSvg(sheet: Sheet, width: number, edge = 0.02): string {
	const [left, bottom, right, top] = sheet.box;
	const margin = Math.max(right - left, top - bottom) * edge;
	const spanX = right - left + 2 * margin;
	const spanY = top - bottom + 2 * margin;
	const scale = Math.min(width / spanX, (width * 4) / spanY);
	const w = Math.max(1, Math.round(spanX * scale));
	const h = Math.max(1, Math.round(spanY * scale));
	const x = (v: number) => ((v - left + margin) * scale).toFixed(1);
	const y = (v: number) => ((top + margin - v) * scale).toFixed(1);
	const shown = (layer: number) => sheet.layers[layer]!.visible;
	const path = (points: Flat) => {
		let last = `${x(points[0]!)} ${y(points[1]!)}`;
		let d = `M${last}`;
		for (let i = 2; i < points.length; i += 2) {
			const next = `${x(points[i]!)} ${y(points[i + 1]!)}`;
			// Curves have many points, which fall together in a small picture; a line to itself is a dot.
			if (next !== last || points.length === 4) d += `L${next}`;
			last = next;
		}
		return d;
	};
	const parts = [
		`<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">`,
		`<rect width="${w}" height="${h}" fill="#fff"/>`
	];
	sheet.fills.forEach((f, i) => {
		if (!shown(f.layer)) return;
		const fill = f.gradient ? `url(#g${i})` : css(f.colour);
		if (f.gradient) parts.push(gradient(`g${i}`, f.gradient, x, y));
		const d = f.loops.map((l) => path(l) + 'Z').join('');
		parts.push(`<path fill-rule="evenodd" fill="${fill}" d="${d}"/>`);
	});
	// Lines that look alike and follow each other are one path: a picture of one element a line takes ten times the memory.
	let look = '';
	let paths: string[] = [];
	const lines = () => {
		if (paths.length) parts.push(`<path fill="none" ${look} d="${paths.join('')}"/>`);
		paths = [];
	};
	for (const s of sheet.strokes) {
		if (!shown(s.layer)) continue;
		const dash =
			s.dash.length && s.dash.some((d) => d * scale > 1)
				? ` stroke-dasharray="${s.dash.map((d) => Math.max(0.5, d * scale).toFixed(1)).join(' ')}"`
				: '';
		const weight = Math.max(lineWidth(s.weight, w), s.wide * scale).toFixed(2);
		const ends = isDot(s.points) ? ' stroke-linecap="round"' : '';
		const own = `stroke="${css(s.colour)}" stroke-width="${weight}"${ends}${dash}`;
		if (own !== look || paths.length === MOST_JOINED) lines();
		look = own;
		paths.push(path(s.points));
	}
	lines();
	for (const t of sheet.texts) {
		const size = t.height * scale * LETTER_SIZE;
		if (!shown(t.layer) || size < 2) continue;
		const anchor = t.alignX === 0 ? 'start' : t.alignX === 1 ? 'end' : 'middle';
		const letters = t.wide === 1 && t.slant === 0 ? '' : ` matrix(${t.wide} 0 ${-Math.tan(t.slant)} 1 0 0)`;
		const turn = ((-t.turn * 180) / Math.PI).toFixed(1);
		parts.push(
			`<text transform="translate(${x(t.x)} ${y(t.y)}) rotate(${turn})${letters}" y="${(t.alignY * t.height * scale).toFixed(1)}" font-family="sans-serif" font-size="${size.toFixed(1)}" text-anchor="${anchor}" fill="${css(t.colour)}">${escapeXml(t.text)}</text>`
		);
	}
	parts.push('</svg>');
	return parts.join('');
}
