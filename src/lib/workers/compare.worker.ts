/** Compares sheets, texts and schedules off the main thread. */
import { grown, packMask, type Mask } from '../core/compare/mask';
import { compareSheets, type ChangedPlace, type SheetOptions } from '../core/compare/sheets';
import { compareTables, type ComparedTable, type Table } from '../core/compare/tables';
import { compareTexts, type ComparedBlock } from '../core/compare/texts';

interface Pixels {
	data: Uint8ClampedArray;
	width: number;
	height: number;
}

export interface SheetAnswer {
	/** The two sheets laid on each other, what was taken away and added in colour and pattern. */
	together: ImageBitmap;
	places: ChangedPlace[];
	shift: { x: number; y: number };
	tolerance: number;
}

/** What can be asked of this worker, and what it answers. */
export interface Compares {
	ink: { input: Pixels; answer: Mask };
	sheets: {
		input: { before: Mask; after: Mask; options: SheetOptions };
		answer: SheetAnswer;
	};
	texts: { input: { before: string[]; after: string[] }; answer: ComparedBlock[] };
	tables: { input: { before: Table[]; after: Table[]; key: string | undefined }; answer: ComparedTable[] };
}

const answers: { [K in keyof Compares]: (input: Compares[K]['input']) => Compares[K]['answer'] } = {
	ink: ({ data, width, height }) => packMask(data, width, height),
	sheets({ before, after, options }) {
		const { places, shift, tolerance, takenAway, added } = compareSheets(before, after, options);
		return { together: together(before, takenAway, added), places, shift, tolerance };
	},
	texts: ({ before, after }) => compareTexts(before, after),
	tables: ({ before, after, key }) => compareTables(before, after, key)
};

/** Pixels around what changed that carry its pattern: lines alone are too thin for one. */
const HALO = 5;

/**
 * Both sheets as one picture: ink of both in grey, what was taken away in red amid slanted stripes, what was added in
 * green amid dots.
 */
function together(before: Mask, takenAway: Mask, added: Mask): ImageBitmap {
	const { width, height, stride } = takenAway;
	const image = new ImageData(width, height);
	const pixels = new Uint32Array(image.data.buffer);
	// Bytes stand as alpha, blue, green, red in a number on every machine a browser runs on.
	const [PAPER, INK, RED, RED_SOFT, GREEN, GREEN_SOFT] = [
		0xffffffff, 0xff8a827e, 0xff1f31b3, 0xffb8c2f2, 0xff586b0b, 0xffb4d9ae
	];
	pixels.fill(PAPER);
	const around = { takenAway: grown(takenAway, HALO), added: grown(added, HALO) };
	for (let y = 0; y < height; y++)
		for (let w = 0; w < stride; w++) {
			const at = y * stride + w;
			const ink = w < before.stride && y < before.height ? before.bits[y * before.stride + w]! : 0;
			const [gone, fresh] = [takenAway.bits[at]!, added.bits[at]!];
			const [nearGone, nearFresh] = [around.takenAway.bits[at]!, around.added.bits[at]!];
			if (!(ink | gone | fresh | nearGone | nearFresh)) continue;
			for (let i = 0; i < 32 && w * 32 + i < width; i++) {
				const x = w * 32 + i;
				const bit = 1 << i;
				let colour = PAPER;
				if (nearGone & bit && (x + y) % 6 < 2) colour = RED_SOFT;
				if (nearFresh & bit && x % 5 < 2 && y % 5 < 2) colour = GREEN_SOFT;
				if (ink & bit) colour = INK;
				if (gone & bit) colour = RED;
				if (fresh & bit) colour = GREEN;
				pixels[y * width + x] = colour;
			}
		}
	const canvas = new OffscreenCanvas(width, height);
	canvas.getContext('2d')!.putImageData(image, 0, 0);
	return canvas.transferToImageBitmap();
}

/** What of an answer is handed over and not copied. */
function partsOf(answer: object): Transferable[] {
	if ('together' in answer) return [answer.together as ImageBitmap];
	return 'bits' in answer ? [(answer as Mask).bits.buffer] : [];
}

self.onmessage = (event: MessageEvent<{ what: keyof Compares; input: never }>) => {
	try {
		const answer = answers[event.data.what](event.data.input) as object;
		self.postMessage({ answer }, { transfer: partsOf(answer) });
	} catch {
		self.postMessage({ fault: 'These two cannot be compared.' });
	}
};
