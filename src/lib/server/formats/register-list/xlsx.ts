import ExcelJS from '@protobi/exceljs';
import sharp from 'sharp';
import { fullDayWords } from '../../../core/time/days';
import { DATE_FORMAT, dateOf, putTable } from '../lists/sheet';
import { tableOf } from './columns';
import { curvesPicture } from './curves-picture';
import type { RegisterListTask } from './task';

/** A3 as sheets number it (ECMA-376, part 1, 18.3.1.63); the library names only some. */
const A3 = 8 as ExcelJS.PaperSize;
const PICTURE = { width: 1000, height: 420 };

/** With real dates, filters, and the curves as a picture. */
export async function toXlsx(task: RegisterListTask): Promise<Uint8Array> {
	const { about, curves } = task;
	const book = new ExcelJS.Workbook();
	book.creator = 'Cupboard';
	const sheet = book.addWorksheet('Register', {
		views: [{ state: 'frozen', xSplit: 2, ySplit: 1 }],
		pageSetup: { paperSize: A3, orientation: 'landscape', fitToPage: true, fitToHeight: 0 }
	});
	putTable(sheet, tableOf(task));
	const drawn = book.addWorksheet('Curves');
	drawn.addRow([`${about.project}, ${fullDayWords(about.today)}`]).font = { bold: true };
	drawn.addRow(['Day', 'Planned', 'Issued', 'Expected']).font = { bold: true };
	drawn.getColumn(1).width = 12;
	curves.days.forEach((day, i) => {
		const row = drawn.addRow([dateOf(day), curves.planned[i], curves.actual[i], curves.forecast[i]]);
		row.getCell(1).numFmt = DATE_FORMAT;
	});
	if (curves.days.length) {
		const png = await sharp(Buffer.from(curvesPicture(curves, about.today, PICTURE)), { density: 144 })
			.flatten({ background: '#ffffff' })
			.png()
			.toBuffer();
		const image = book.addImage({ base64: png.toString('base64'), extension: 'png' });
		drawn.addImage(image, { tl: { col: 5, row: 1 }, ext: PICTURE });
	}
	return new Uint8Array(await book.xlsx.writeBuffer());
}
