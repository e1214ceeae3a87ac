/** Writes drawings as DXF R12 text: layers, line types, blocks, dimensions and insertions with attributes. */

const LAYERS: [name: string, colour: number, lineType: string][] = [
	['FRAME', 7, 'CONTINUOUS'],
	['TITLE', 7, 'CONTINUOUS'],
	['OUTLINE', 7, 'CONTINUOUS'],
	['WALL', 7, 'CONTINUOUS'],
	['FINE', 8, 'CONTINUOUS'],
	['HATCH', 9, 'CONTINUOUS'],
	['CENTRE', 1, 'CENTRE'],
	['GRID', 8, 'CENTRE'],
	['HIDDEN', 8, 'DASHED'],
	['DIM', 4, 'CONTINUOUS'],
	['TEXT', 7, 'CONTINUOUS'],
	['WATER', 4, 'DASHED'],
	['STEEL', 5, 'CONTINUOUS'],
	['SERVICE', 6, 'CONTINUOUS'],
	['SYMBOL', 3, 'CONTINUOUS']
];

export interface TitleData {
	number: string;
	title: string;
	revision: string;
	scale: string;
	date: string;
	drawn: string;
	department: string;
}

type Value = string | number;

/** One drawing being written. Coordinates are millimetres on site; `scale` is the sheet's, for texts and frames. */
export class DxfWriter {
	private readonly entities: string[] = [];
	private readonly blocks: string[] = [];
	private readonly blockNames = new Set<string>();
	private target = this.entities;
	private dimensions = 0;
	/** Where the middle of what is drawn stands on the sheet. */
	private origin = { x: 0, y: 0 };
	/** How far it is moved by {@link at}, which counts for how far it reaches. */
	private shift = { x: 0, y: 0 };
	/** What has been drawn, from left to right and from bottom to top. */
	readonly bounds = { left: Infinity, bottom: Infinity, right: -Infinity, top: -Infinity };

	constructor(readonly scale: number) {}

	/** What is drawn from here on is moved by so much on site. */
	moveTo(x: number, y: number): void {
		this.origin = { x, y };
	}

	/** Draws something moved by so much from where it would stand. */
	at(x: number, y: number, draw: () => void): void {
		const before = this.origin;
		this.shift = { x: this.shift.x + x, y: this.shift.y + y };
		this.origin = { x: before.x + x, y: before.y + y };
		draw();
		this.origin = before;
		this.shift = { x: this.shift.x - x, y: this.shift.y - y };
	}

	/** Draws something at a place of the sheet itself, in millimetres on site, wherever the drawing stands. */
	onSheet(draw: () => void): void {
		const [origin, bounds] = [this.origin, { ...this.bounds }];
		this.origin = { x: 0, y: 0 };
		draw();
		this.origin = origin;
		Object.assign(this.bounds, bounds);
	}

	private put(...groups: [number, Value][]): void {
		for (const [code, value] of groups) {
			const at =
				typeof value !== 'number'
					? value
					: value + (code >= 10 && code <= 14 ? this.origin.x : code >= 20 && code <= 24 ? this.origin.y : 0);
			this.target.push(String(code), typeof at === 'number' ? String(Math.round(at * 1e4) / 1e4) : at);
		}
	}

	/** Notes how far the drawing reaches; what stands in a block reaches as far as its insertion. */
	private reach(atX: number, atY: number, around = 0): void {
		if (this.target !== this.entities) return;
		const [x, y] = [atX + this.shift.x, atY + this.shift.y];
		this.bounds.left = Math.min(this.bounds.left, x - around);
		this.bounds.right = Math.max(this.bounds.right, x + around);
		this.bounds.bottom = Math.min(this.bounds.bottom, y - around);
		this.bounds.top = Math.max(this.bounds.top, y + around);
	}

	line(layer: string, x1: number, y1: number, x2: number, y2: number): void {
		this.reach(x1, y1);
		this.reach(x2, y2);
		this.put([0, 'LINE'], [8, layer], [10, x1], [20, y1], [30, 0], [11, x2], [21, y2], [31, 0]);
	}

	path(layer: string, points: [number, number][], closed = false): void {
		// The point of a polyline itself is always nothing; its vertices say where it is.
		this.put([0, 'POLYLINE'], [8, layer], [66, 1]);
		this.target.push('10', '0', '20', '0', '30', '0');
		this.put([70, closed ? 1 : 0]);
		for (const [x, y] of points) this.reach(x, y);
		for (const [x, y] of points) this.put([0, 'VERTEX'], [8, layer], [10, x], [20, y], [30, 0]);
		this.put([0, 'SEQEND'], [8, layer]);
	}

	box(layer: string, x: number, y: number, w: number, h: number): void {
		this.path(
			layer,
			[
				[x, y],
				[x + w, y],
				[x + w, y + h],
				[x, y + h]
			],
			true
		);
	}

	circle(layer: string, x: number, y: number, r: number): void {
		this.reach(x, y, r);
		this.put([0, 'CIRCLE'], [8, layer], [10, x], [20, y], [30, 0], [40, r]);
	}

	arc(layer: string, x: number, y: number, r: number, from: number, to: number): void {
		this.reach(x, y, r);
		this.put([0, 'ARC'], [8, layer], [10, x], [20, y], [30, 0], [40, r], [50, from], [51, to]);
	}

	solid(
		layer: string,
		a: [number, number],
		b: [number, number],
		c: [number, number],
		d: [number, number] = c
	): void {
		this.put(
			[0, 'SOLID'],
			[8, layer],
			[10, a[0]],
			[20, a[1]],
			[30, 0],
			[11, b[0]],
			[21, b[1]],
			[31, 0],
			[12, d[0]],
			[22, d[1]],
			[32, 0],
			[13, c[0]],
			[23, c[1]],
			[33, 0]
		);
	}

	/** Text with its height in millimetres on paper. */
	text(
		x: number,
		y: number,
		paperHeight: number,
		value: string,
		{ layer = 'TEXT', turn = 0, middle = false } = {}
	): void {
		// Letters are some seven tenths as wide as high.
		const long = value.length * paperHeight * this.scale * 0.7;
		this.reach(middle ? x - long / 2 : x, y);
		this.reach(turn ? x : middle ? x + long / 2 : x + long, turn ? y + long : y);
		this.put(
			[0, 'TEXT'],
			[8, layer],
			[10, x],
			[20, y],
			[30, 0],
			[40, paperHeight * this.scale],
			[1, value],
			[50, turn]
		);
		if (middle) this.put([72, 1], [11, x], [21, y], [31, 0]);
	}

	/** Parallel lines at 45 degrees over a box, as cut material is shown. */
	hatch(x: number, y: number, w: number, h: number, gap: number): void {
		for (let at = gap; at < w + h; at += gap) {
			const x1 = Math.max(0, at - h);
			const x2 = Math.min(w, at);
			this.line('HATCH', x + x1, y + at - x1, x + x2, y + at - x2);
		}
	}

	/** Defines a block once; what `draw` writes becomes its content. */
	block(name: string, draw: () => void): void {
		if (this.blockNames.has(name)) return;
		this.blockNames.add(name);
		const before = this.target;
		const origin = this.origin;
		// What a dimension draws stands where it is on the sheet; any other block has a place of its own.
		if (!name.startsWith('*')) this.origin = { x: 0, y: 0 };
		this.target = [];
		this.target.push(
			...['0', 'BLOCK', '8', '0', '2', name, '70', '0', '10', '0', '20', '0', '30', '0', '3', name]
		);
		draw();
		this.put([0, 'ENDBLK'], [8, '0']);
		this.blocks.push(...this.target);
		this.target = before;
		this.origin = origin;
	}

	insert(
		name: string,
		layer: string,
		x: number,
		y: number,
		{ turn = 0, size = 1, columns = 1, rows = 1, dx = 0, dy = 0 } = {}
	): void {
		this.reach(x, y);
		this.reach(x + dx * (columns - 1), y + dy * (rows - 1));
		this.put(
			[0, 'INSERT'],
			[8, layer],
			[2, name],
			[10, x],
			[20, y],
			[30, 0],
			[41, size],
			[42, size],
			[43, size],
			[50, turn],
			[70, columns],
			[71, rows],
			[44, dx],
			[45, dy]
		);
	}

	/** A measured distance, written above (or left of) its line. */
	dimension(x1: number, y1: number, x2: number, y2: number, away: number): void {
		const across = Math.abs(x2 - x1) >= Math.abs(y2 - y1);
		const s = this.scale;
		const name = `*D${++this.dimensions}`;
		const value = Math.round(across ? Math.abs(x2 - x1) : Math.abs(y2 - y1));
		const label = value.toLocaleString('en').replace(/,/g, ' ');
		const ax = across ? x1 : x1 + away;
		const ay = across ? y1 + away : y1;
		const bx = across ? x2 : x1 + away;
		const by = across ? y1 + away : y2;
		this.reach(ax, ay, 3 * s);
		this.reach(bx, by, 3 * s);
		this.block(name, () => {
			this.line('DIM', x1, y1, ax, ay);
			this.line('DIM', across ? x2 : x1, across ? y1 : y2, bx, by);
			this.line('DIM', ax, ay, bx, by);
			for (const [px, py] of [
				[ax, ay],
				[bx, by]
			] as const)
				this.line('DIM', px - s, py - s, px + s, py + s);
			this.text((ax + bx) / 2 - (across ? 0 : 1.5 * s), (ay + by) / 2 + (across ? 1 * s : 0), 2.5, label, {
				layer: 'DIM',
				turn: across ? 0 : 90,
				middle: true
			});
		});
		this.put(
			[0, 'DIMENSION'],
			[8, 'DIM'],
			[2, name],
			[10, bx],
			[20, by],
			[30, 0],
			[11, (ax + bx) / 2],
			[21, (ay + by) / 2],
			[31, 0],
			[70, 0],
			[1, label],
			[13, x1],
			[23, y1],
			[33, 0],
			[14, x2],
			[24, y2],
			[34, 0],
			[50, across ? 0 : 90]
		);
	}

	/** The A1 frame around everything, its zones, and the title block at its lower right (ISO 5457, ISO 7200). */
	sheet(data: TitleData): void {
		const s = this.scale;
		const at = (x: number, y: number): [number, number] => [x * s, y * s];
		this.box('FRAME', ...at(10, 10), 821 * s, 574 * s);
		for (let i = 0; i < 8; i++) {
			const x = 10 + ((i + 0.5) * 821) / 8;
			if (i)
				for (const y of [5, 584])
					this.line('FRAME', ...at(10 + (i * 821) / 8, y), ...at(10 + (i * 821) / 8, y + 5));
			for (const y of [6, 585.5])
				this.text(x * s, y * s, 2.5, String(i + 1), { layer: 'FRAME', middle: true });
		}
		for (let i = 0; i < 6; i++) {
			const y = 10 + ((i + 0.5) * 574) / 6;
			if (i)
				for (const x of [5, 831])
					this.line('FRAME', ...at(x, 10 + (i * 574) / 6), ...at(x + 5, 10 + (i * 574) / 6));
			for (const x of [7, 833.5])
				this.text(x * s, y * s, 2.5, 'FEDCBA'[i]!, { layer: 'FRAME', middle: true });
		}
		this.block('TITLE_BLOCK', () => {
			this.box('TITLE', 0, 0, 190 * s, 58 * s);
			for (const y of [14, 28, 42]) this.line('TITLE', 0, y * s, 190 * s, y * s);
			for (const x of [95, 143]) this.line('TITLE', x * s, 0, x * s, 28 * s);
			const heads: [number, number, string][] = [
				[2, 53.5, 'Project'],
				[2, 38, 'Title'],
				[2, 24.5, 'Number'],
				[97, 24.5, 'Revision'],
				[145, 24.5, 'Date'],
				[2, 10.5, 'Department'],
				[97, 10.5, 'Scale'],
				[145, 10.5, 'Drawn']
			];
			for (const [x, y, head] of heads) this.text(x * s, y * s, 1.8, head, { layer: 'TITLE' });
		});
		const [x, y] = at(641, 10);
		this.put([0, 'INSERT'], [8, 'TITLE'], [66, 1], [2, 'TITLE_BLOCK'], [10, x], [20, y], [30, 0]);
		const attribute = (tag: string, ax: number, ay: number, height: number, value: string) =>
			this.put(
				[0, 'ATTRIB'],
				[8, 'TITLE'],
				[10, x + ax * s],
				[20, y + ay * s],
				[30, 0],
				[40, height * s],
				[1, value],
				[2, tag],
				[70, 0]
			);
		attribute('PROJECT', 2, 46, 4, 'VENNHOLM FERRY TERMINAL');
		attribute('TITLE', 2, 31, 4, data.title);
		attribute('NUMBER', 2, 17, 4, data.number);
		attribute('REVISION', 97, 17, 5, data.revision);
		attribute('DATE', 145, 17, 3.2, data.date);
		attribute('DEPARTMENT', 2, 3, 3.2, data.department);
		attribute('SCALE', 97, 3, 3.2, data.scale);
		attribute('DRAWN', 145, 3, 3.2, data.drawn);
		this.put([0, 'SEQEND'], [8, 'TITLE']);
	}

	toString(): string {
		const out: string[] = [];
		const put = (...groups: [number, Value][]) =>
			groups.forEach(([code, value]) => out.push(String(code), String(value)));
		put(
			[0, 'SECTION'],
			[2, 'HEADER'],
			[9, '$ACADVER'],
			[1, 'AC1009'],
			[9, '$DWGCODEPAGE'],
			[3, 'ANSI_1252'],
			[9, '$INSUNITS'],
			[70, 4],
			[9, '$LTSCALE'],
			[40, this.scale]
		);
		put(
			[9, '$EXTMIN'],
			[10, 0],
			[20, 0],
			[9, '$EXTMAX'],
			[10, 841 * this.scale],
			[20, 594 * this.scale],
			[0, 'ENDSEC']
		);
		put([0, 'SECTION'], [2, 'TABLES'], [0, 'TABLE'], [2, 'LTYPE'], [70, 3]);
		put([0, 'LTYPE'], [2, 'CONTINUOUS'], [70, 0], [3, 'full'], [72, 65], [73, 0], [40, 0]);
		put(
			[0, 'LTYPE'],
			[2, 'CENTRE'],
			[70, 0],
			[3, 'long short'],
			[72, 65],
			[73, 4],
			[40, 15],
			[49, 9],
			[49, -2],
			[49, 2],
			[49, -2]
		);
		put([0, 'LTYPE'], [2, 'DASHED'], [70, 0], [3, 'dashes'], [72, 65], [73, 2], [40, 6], [49, 4], [49, -2]);
		put([0, 'ENDTAB'], [0, 'TABLE'], [2, 'LAYER'], [70, LAYERS.length]);
		for (const [name, colour, lineType] of LAYERS)
			put([0, 'LAYER'], [2, name], [70, 0], [62, colour], [6, lineType]);
		put(
			[0, 'ENDTAB'],
			[0, 'TABLE'],
			[2, 'STYLE'],
			[70, 1],
			[0, 'STYLE'],
			[2, 'STANDARD'],
			[70, 0],
			[40, 0],
			[41, 1],
			[50, 0],
			[71, 0],
			[42, 2.5],
			[3, 'txt'],
			[4, '']
		);
		put([0, 'ENDTAB'], [0, 'ENDSEC'], [0, 'SECTION'], [2, 'BLOCKS']);
		out.push(...this.blocks);
		put([0, 'ENDSEC'], [0, 'SECTION'], [2, 'ENTITIES']);
		out.push(...this.entities);
		put([0, 'ENDSEC'], [0, 'EOF']);
		return out.join('\r\n') + '\r\n';
	}
}
