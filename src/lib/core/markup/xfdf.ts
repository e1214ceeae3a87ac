import { SaxesParser } from 'saxes';
import type { Annotation } from './annotations';
import type { Point } from './mark';

/** Most annotations that are read from one file. */
const MOST = 20_000;
const NAMES = {
	line: 'Line',
	polyline: 'PolyLine',
	polygon: 'Polygon',
	square: 'Square',
	circle: 'Circle',
	ink: 'Ink',
	freetext: 'FreeText'
} as const;

const escape = (text: string) =>
	text
		// What XML 1.0 cannot hold at all.
		.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
		.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
const n = (value: number) => String(Number(value.toFixed(3)));
const pair = ({ x, y }: Point) => `${n(x)},${n(y)}`;

/** A time as PDF writes it (ISO 32000-1, 7.9.4). */
export function pdfDate(iso: string): string {
	return `D:${iso.replace(/[-:T]/g, '').slice(0, 14)}Z`;
}
/** A time as PDF writes it, as ISO 8601 in UTC; now is left to the caller when it is none. */
export function isoDate(said: string): string | null {
	const [, y, mo = '01', d = '01', h = '00', mi = '00', s = '00', sign, oh = '00', om = '00'] =
		/^(?:D:)?(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:Z|([+-])(\d\d)'?(\d\d)?)?/.exec(said) ?? [];
	if (!y) return null;
	const utc = Date.UTC(Number(y), Number(mo) - 1, Number(d), Number(h), Number(mi), Number(s));
	const off = (Number(oh) * 60 + Number(om)) * 60_000 * (sign === '-' ? -1 : 1);
	return Number.isFinite(utc) ? new Date(sign ? utc - off : utc).toISOString() : null;
}

function element(a: Annotation): string {
	const tag = a.type.toLowerCase();
	const attributes: Record<string, string> = {
		page: String(a.page - 1),
		rect: a.rect.map(n).join(','),
		name: a.name,
		title: a.author,
		subject: a.subject,
		date: pdfDate(a.at),
		creationdate: pdfDate(a.at),
		color: a.colour,
		width: n(a.width),
		flags: 'print'
	};
	if (a.opacity < 1) attributes.opacity = n(a.opacity);
	if (a.cloudy) Object.assign(attributes, { style: 'cloudy', intensity: '1' });
	else if (a.dash.length) Object.assign(attributes, { style: 'dash', dashes: a.dash.map(n).join(',') });
	if (a.intent) attributes.IT = a.intent;
	if (a.type === 'Line') {
		const [start, end] = [a.points[0]!, a.points.at(-1)!];
		Object.assign(attributes, {
			start: pair(start),
			end: pair(end),
			head: 'None',
			tail: a.head ? 'ClosedArrow' : 'None'
		});
	}
	if (a.callout.length) attributes.callout = [...a.callout].map(pair).join(',');
	const inner = [a.contents ? `<contents>${escape(a.contents)}</contents>` : ''];
	if (a.type === 'PolyLine' || a.type === 'Polygon')
		inner.push(`<vertices>${a.points.map(pair).join(';')}</vertices>`);
	if (a.type === 'Ink') inner.push(`<inklist><gesture>${a.points.map(pair).join(';')}</gesture></inklist>`);
	if (a.type === 'FreeText') {
		const [r, g, b] = [1, 3, 5].map((i) => n(parseInt(a.colour.slice(i, i + 2), 16) / 255));
		inner.push(`<defaultappearance>/Helv ${n(a.size)} Tf ${r} ${g} ${b} rg</defaultappearance>`);
	}
	const said = Object.entries(attributes)
		.map(([key, value]) => ` ${key}="${escape(value)}"`)
		.join('');
	return `<${tag}${said}>${inner.join('')}</${tag}>`;
}

/** Writes annotations as XFDF (ISO 19444-1). @param file name of the PDF that they belong to */
export function toXfdf(annotations: readonly Annotation[], file: string): string {
	return `<?xml version="1.0" encoding="UTF-8"?>\n<xfdf xmlns="http://ns.adobe.com/xfdf/" xml:space="preserve"><annots>${annotations.map(element).join('\n')}</annots><f href="${escape(file)}"/></xfdf>\n`;
}

const numbers = (text: string) =>
	text
		.split(/[,;\s]+/)
		.filter((one) => one !== '')
		.map(Number);
function pointsIn(text: string): Point[] {
	const all = numbers(text);
	const found: Point[] = [];
	for (let i = 0; i + 1 < all.length; i += 2)
		if (Number.isFinite(all[i]) && Number.isFinite(all[i + 1])) found.push({ x: all[i]!, y: all[i + 1]! });
	return found;
}

/** What an XFDF file holds: annotations, and how many of kinds that there are not here. */
export interface ReadAnnotations {
	annotations: Annotation[];
	others: number;
}

/** Reads XFDF. Raises an Error with a sentence for what is none. */
export function fromXfdf(text: string): ReadAnnotations {
	const annotations: Annotation[] = [];
	let others = 0;
	let sawRoot = false;
	let inside = false;
	/** How deep within an annotation of a kind that there is not here. */
	let strange = 0;
	let current: Annotation | null = null;
	let part = '';
	let said = '';
	const parser = new SaxesParser();
	parser.on('doctype', () => {
		throw new Error('A file of marks with definitions of its own is not opened.');
	});
	parser.on('opentag', ({ name, attributes }) => {
		const of = attributes as Record<string, string>;
		if (strange) strange++;
		else if (name === 'xfdf') sawRoot = true;
		else if (name === 'annots') inside = true;
		else if (current) {
			part = name;
			said = '';
		} else if (inside) {
			const type = NAMES[name as keyof typeof NAMES];
			if (type && annotations.length < MOST) current = begin(type, of);
			else {
				others++;
				strange = 1;
			}
		}
	});
	const take = (text: string) => {
		if (current && part) said += text.slice(0, 20_000 - said.length);
	};
	parser.on('text', take);
	parser.on('cdata', take);
	parser.on('closetag', ({ name }) => {
		if (strange) return void strange--;
		if (name === 'annots') inside = false;
		if (!current) return;
		if (name === current.type.toLowerCase()) {
			annotations.push(current);
			current = null;
		} else if (name === part) {
			if (part === 'contents') current.contents = said.trim();
			else if (part === 'gesture' && current.points.length) (current.strokes ??= []).push(pointsIn(said));
			else if (part === 'vertices' || part === 'gesture') current.points.push(...pointsIn(said));
			else if (part === 'defaultappearance')
				current.size = Number(/([\d.]+)\s+Tf/.exec(said)?.[1] ?? current.size) || current.size;
			part = '';
		}
	});
	try {
		parser.write(text).close();
	} catch (error) {
		throw new Error(
			/of its own/.test((error as Error).message)
				? (error as Error).message
				: 'This file is damaged, or holds no marks in XFDF.',
			{ cause: error }
		);
	}
	if (!sawRoot) throw new Error('This file holds no marks in XFDF.');
	return { annotations, others };
}

function begin(type: Annotation['type'], of: Record<string, string>): Annotation {
	const rect = numbers(of.rect ?? '');
	const line = type === 'Line' ? pointsIn(`${of.start ?? ''};${of.end ?? ''}`) : [];
	const colour = /^#[0-9a-f]{6}$/i.test(of.color ?? '') ? of.color! : '#b3311f';
	const [headed, tailed] = [/Arrow/.test(of.head ?? ''), /Arrow/.test(of.tail ?? '')];
	return {
		type,
		page: Math.max(1, Math.trunc(Number(of.page) || 0) + 1),
		name: of.name ?? '',
		rect: [0, 1, 2, 3].map((i) => (Number.isFinite(rect[i]) ? rect[i]! : 0)) as Annotation['rect'],
		// An arrow here points to its last point.
		points: headed && !tailed ? line.reverse() : line,
		callout: pointsIn(of.callout ?? ''),
		contents: '',
		author: of.title ?? '',
		subject: of.subject ?? '',
		at: isoDate(of.date ?? '') ?? '',
		colour,
		width: Number(of.width) || 1,
		dash: numbers(of.dashes ?? '').filter((d) => d > 0),
		opacity: Number(of.opacity ?? 1),
		cloudy: of.style === 'cloudy' || of.IT === 'PolygonCloud',
		head: headed || tailed,
		intent: of.IT ?? '',
		size: 12
	};
}
