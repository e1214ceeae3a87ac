import { and, desc, eq } from 'drizzle-orm';
import * as contract from '../../contract/settings';
import { readTitleBlock } from '../../core/documents/title-block';
import { USUAL_RHYTHM } from '../../core/releases';
import { content, document, version } from '../platform/db/schema';
import { answers } from '../platform/runner/act';

export const settings = answers(contract.settings, {
	async run({ services, project: { settings: held, name } }) {
		return {
			copyStamp: held.copyStamp ?? '',
			reminders: held.reminders ?? USUAL_RHYTHM,
			mailSender: held.mailSender ?? { name: '', replyTo: '' },
			sends: { name, address: services.config.mailFrom }
		};
	}
});

export const titleBlocks = answers(contract.titleBlocks, {
	async run({ db, project: here }, { left, top, right, bottom }) {
		const { numbering, revisions, titleBlock } = here.settings;
		const area =
			left !== undefined && top !== undefined && right !== undefined && bottom !== undefined
				? { left, top, right, bottom }
				: titleBlock;
		// One that controls reaches every document of the project; removed ones are not looked at.
		const rows = await db
			.select({
				document: document.id,
				number: document.number,
				title: document.title,
				label: version.label,
				hash: content.hash,
				inspection: content.inspection
			})
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.innerJoin(content, eq(content.hash, version.hash))
			.where(
				and(
					eq(document.projectId, here.id),
					eq(document.live, true),
					eq(content.mediaType, 'application/pdf'),
					eq(content.preview, 'made')
				)
			)
			.orderBy(desc(document.changedAt))
			.limit(contract.SHEETS_TRIED * 6);
		return {
			area,
			sheets: rows
				.filter((row) => row.inspection?.sheetWords?.length)
				.slice(0, contract.SHEETS_TRIED + 1)
				.map(({ inspection, ...row }) => {
					const words = inspection!.sheetWords!;
					const read = readTitleBlock(words, area, numbering, revisions);
					return { ...row, readNumber: read.number, readRevision: read.revision, words };
				})
		};
	}
});
