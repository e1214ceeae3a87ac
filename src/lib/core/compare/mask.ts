/** A sheet as ink or no ink, one bit a pixel, row by row; every row begins a new word. */
export interface Mask {
	width: number;
	height: number;
	/** Words in a row. */
	stride: number;
	bits: Uint32Array;
	/** Pixels of ink in all, in each row and in each column. */
	ink: number;
	rows: Uint32Array;
	columns: Uint32Array;
}

/** Darker than this counts as ink, of 0 (black) to 255 (white); high enough for thin grey lines. */
const INK = 215;

/** A white pixel, and a row of them laid over each other: every bit set. */
const WHITE = -1;

/** Whether eight pixels from one on are white. */
function whiteAt(pixels: Int32Array, at: number): boolean {
	const half = pixels[at]! & pixels[at + 1]! & pixels[at + 2]! & pixels[at + 3]!;
	return (half & pixels[at + 4]! & pixels[at + 5]! & pixels[at + 6]! & pixels[at + 7]!) === WHITE;
}

function empty(width: number, height: number): Mask {
	const stride = Math.ceil(width / 32);
	return {
		width,
		height,
		stride,
		bits: new Uint32Array(stride * height),
		ink: 0,
		rows: new Uint32Array(height),
		columns: new Uint32Array(width)
	};
}

/**
 * Packs the pixels of a rendered sheet.
 * @param pixels red, green, blue and opacity of each pixel, as a canvas gives them; on white
 */
export function packMask(pixels: Uint8ClampedArray, width: number, height: number, ink = INK): Mask {
	const mask = empty(width, height);
	const { bits, stride, rows, columns } = mask;
	// A pixel at a time as one number: most are white, and are passed over eight at once without being taken apart.
	const whole = new Int32Array(pixels.buffer, pixels.byteOffset, width * height);
	const most = ink * 1000;
	for (let y = 0, at = 0; y < height; y++) {
		let inRow = 0;
		for (let x = 0; x < width;) {
			const end = Math.min(width, x + 32);
			const index = y * stride + (x >>> 5);
			let word = 0;
			while (x < end) {
				if (x + 8 <= end && whiteAt(whole, at)) {
					x += 8;
					at += 8;
					continue;
				}
				for (const stop = Math.min(end, x + 8); x < stop; x++, at++) {
					const pixel = whole[at]!;
					if (pixel === WHITE) continue;
					// Luma of ITU-R BT.601, in whole numbers; the bytes stand in the order of little-endian machines.
					const grey = (pixel & 255) * 299 + ((pixel >>> 8) & 255) * 587 + ((pixel >>> 16) & 255) * 114;
					if (grey >= most) continue;
					word |= 1 << (x & 31);
					inRow++;
					columns[x]!++;
				}
			}
			bits[index] = word;
		}
		rows[y] = inRow;
		mask.ink += inRow;
	}
	return mask;
}

/** Counts the bits of a word (Warren, Hacker's Delight, 5-1). */
export function countBits(word: number): number {
	let n = word - ((word >>> 1) & 0x55555555);
	n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
	return (((n + (n >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** The word of a row that begins `x` pixels in; pixels outside are blank. */
function wordAt(mask: Mask, x: number, y: number): number {
	if (y < 0 || y >= mask.height || x <= -32 || x >= mask.width) return 0;
	const index = x >> 5;
	const shift = x & 31;
	const row = y * mask.stride;
	const low = index >= 0 ? mask.bits[row + index]! : 0;
	if (shift === 0) return low;
	const high = index + 1 < mask.stride ? mask.bits[row + index + 1]! : 0;
	return (low >>> shift) | (high << (32 - shift));
}

/** The same ink moved right and down, on a ground of the given size. */
export function movedMask(
	mask: Mask,
	dx: number,
	dy: number,
	width = mask.width,
	height = mask.height
): Mask {
	if (dx === 0 && dy === 0 && width === mask.width && height === mask.height) return mask;
	const moved = empty(width, height);
	const last = width & 31 ? (1 << (width & 31)) - 1 : ~0;
	for (let y = 0; y < height; y++)
		for (let w = 0; w < moved.stride; w++)
			moved.bits[y * moved.stride + w] =
				wordAt(mask, w * 32 - dx, y - dy) & (w === moved.stride - 1 ? last : ~0);
	for (const word of moved.bits) if (word) moved.ink += countBits(word);
	return moved;
}

/** Pixels of ink that two sheets share when the second is moved; looks at every `every`th row only. */
export function shared(a: Mask, b: Mask, dx: number, dy: number, every = 1): number {
	const words = -dx >> 5;
	const shift = -dx & 31;
	const within = (at: number) => at >= 0 && at < b.stride;
	let n = 0;
	for (let y = 0; y < a.height; y += every) {
		if (y < dy || y - dy >= b.height) continue;
		const row = (y - dy) * b.stride;
		for (let w = 0; w < a.stride; w++) {
			const own = a.bits[y * a.stride + w]!;
			if (!own) continue;
			const at = w + words;
			const low = within(at) ? b.bits[row + at]! >>> shift : 0;
			const high = shift && within(at + 1) ? b.bits[row + at + 1]! << (32 - shift) : 0;
			n += countBits(own & (low | high));
		}
	}
	return n;
}

/** The ink grown by a number of pixels to every side. */
export function grown(mask: Mask, by: number): Mask {
	let from = mask;
	for (let step = 0; step < by; step++) {
		const wide = empty(mask.width, mask.height);
		for (let y = 0; y < mask.height; y++)
			for (let w = 0; w < mask.stride; w++) {
				const x = w * 32;
				wide.bits[y * mask.stride + w] = wordAt(from, x, y) | wordAt(from, x - 1, y) | wordAt(from, x + 1, y);
			}
		const tall = empty(mask.width, mask.height);
		for (let y = 0; y < mask.height; y++)
			for (let w = 0; w < mask.stride; w++) {
				const at = y * mask.stride + w;
				tall.bits[at] =
					wide.bits[at]! |
					(y > 0 ? wide.bits[at - mask.stride]! : 0) |
					(y + 1 < mask.height ? wide.bits[at + mask.stride]! : 0);
			}
		from = tall;
	}
	return from;
}

/** Ink of the first that the second does not have. Both on grounds of one size. */
export function without(a: Mask, b: Mask): Mask {
	const rest = empty(a.width, a.height);
	for (let i = 0; i < a.bits.length; i++) {
		const word = a.bits[i]! & ~b.bits[i]!;
		if (!word) continue;
		rest.bits[i] = word;
		rest.ink += countBits(word);
	}
	return rest;
}
