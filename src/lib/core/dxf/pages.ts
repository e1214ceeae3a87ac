import { flatten, wordsOf } from './flatten';
import { entityWord } from './kinds';
import { inModel, layoutsOf, type Layout } from './layouts';
import { layOut } from './paper';
import { decodeDxf, readDxf, type Drawing } from './read';
import type { Sheet } from './sheet';
import { titleBlock, type TitleBlock } from './title-block';

/** What a drawing shows, page by page: its model first, then each sheet that it is laid out on. */
export class DrawingPages {
	private readonly layouts: Layout[];
	private model: Sheet | null = null;

	constructor(private readonly drawing: Drawing) {
		this.layouts = layoutsOf(drawing);
	}

	/** What the pages are called. */
	get names(): string[] {
		return ['Model', ...this.layouts.map((l) => l.name)];
	}

	/** A page by its number, from 1 on. Raises `RangeError` for one that is not there. */
	page(number: number): Sheet {
		this.model ??= flatten(this.drawing);
		if (number === 1) return this.model;
		const layout = this.layouts[number - 2];
		if (!layout) throw new RangeError(`The drawing has no page ${number}.`);
		return layOut(this.drawing, layout, this.model);
	}

	/**
	 * The page that stands for the drawing where only one is shown: the first sheet it is laid out on; the model when
	 * there is none, or when nothing can be seen on it.
	 */
	get first(): number {
		return this.layouts.length && !isEmpty(this.page(2)) ? 2 : 1;
	}

	/** Attributes and texts of the sheets and of the model, each once and without what windows show of it. */
	written(): Pick<Sheet, 'attributes' | 'texts'> {
		const own = [
			...this.layouts.map((l) => wordsOf(this.drawing, l.entities)),
			wordsOf(this.drawing, this.drawing.entities.filter(inModel))
		];
		return { attributes: own.flatMap((s) => s.attributes), texts: own.flatMap((s) => s.texts) };
	}
}

/** Whether nothing of a sheet can be seen. */
export const isEmpty = (sheet: Sheet): boolean =>
	![...sheet.strokes, ...sheet.fills, ...sheet.texts].some((item) => sheet.layers[item.layer]!.visible);

/** What is read here, and still is left out when the file does not hold what it refers to. */
const LACKING: Record<string, string> = {
	INSERT: 'block that the file does not hold',
	HATCH: 'hatch without an outline'
};

/** What a sheet leaves out, as a sentence without its full stop; empty when it leaves out nothing. */
export function leftOutWords({ unknown, cut }: Pick<Sheet, 'unknown' | 'cut'>): string {
	const count = Object.values(unknown).reduce((a, b) => a + b, 0);
	const kinds = Object.entries(unknown)
		.sort((a, b) => b[1] - a[1])
		.slice(0, 3)
		.map(([kind, n]) => `${n} × ${LACKING[kind] ?? entityWord(kind)}`)
		.join(', ');
	return [
		cut ? 'too large to show whole' : '',
		count ? `${count === 1 ? '1 item is' : `${count} items are`} not shown (${kinds})` : ''
	]
		.filter(Boolean)
		.join(', ');
}

/** What a drawing says of itself. Raises `DxfError` for what is no drawing. */
export function titleBlockOf(bytes: Uint8Array): TitleBlock {
	return titleBlock(new DrawingPages(readDxf(decodeDxf(bytes))).written().attributes);
}
