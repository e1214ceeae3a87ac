/** Pictures, read by libvips. */
import sharp from 'sharp';
import { MOST_SHOWN_PIXELS, type ShownPage } from '../../../core/files/shown';
import { MOST_PICTURE_PIXELS } from '../limits';
import { KEPT, type Reader } from './reader';

/** Most pages of a scan whose sizes are told. */
const MOST_PAGES = 2_000;
const LIMIT = { limitInputPixels: MOST_PICTURE_PIXELS };

export const picture: Reader = {
	called: 'picture',
	async inspect({ path }) {
		const { width } = await sharp(path, LIMIT).metadata();
		if (!width) throw new Error('The picture has no size.');
		return {};
	},
	async shown({ path }) {
		return { kind: 'pages', unit: 'px', pages: await pagesOf(path), words: false };
	},
	async page({ path, mediaType }, page, width) {
		const one = mediaType === 'image/tiff' ? { page: page - 1 } : {};
		const bytes = await sharp(path, { ...one, ...LIMIT })
			.autoOrient()
			.resize({ width, height: MOST_SHOWN_PIXELS, fit: 'inside', withoutEnlargement: true })
			.webp({ quality: 90, effort: 1 })
			.toBuffer();
		return { bytes, mediaType: 'image/webp' };
	},
	async preview({ path }, to, across) {
		await sharp(path, LIMIT)
			.autoOrient()
			.resize({ width: across, withoutEnlargement: true })
			.webp({ quality: 80 })
			.toFile(to);
	}
};

/** Pictures that are opened only through another one, which is a picture as any. */
export const phone: Reader = { ...picture, inspect: () => KEPT };

/** Sizes of the pages in pixels, upright; most kinds have one. */
async function pagesOf(path: string): Promise<ShownPage[]> {
	const { pages = 1, format } = await sharp(path, LIMIT).metadata();
	// Of moving pictures, whose pages follow each other in time, the first is shown.
	if (format !== 'tiff') return [await pageSize(path, 0)];
	const sizes: ShownPage[] = [];
	for (let page = 0; page < Math.min(pages, MOST_PAGES); page++) sizes.push(await pageSize(path, page));
	return sizes;
}

async function pageSize(path: string, page: number): Promise<ShownPage> {
	const { autoOrient } = await sharp(path, { page, ...LIMIT }).metadata();
	return { width: autoOrient.width, height: autoOrient.height };
}
