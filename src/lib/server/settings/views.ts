import { and, desc, eq } from 'drizzle-orm';
import * as contract from '../../contract/settings';
import { USUAL_PUBLISHING } from '../../core/documents/state';
import { stagesOf } from '../../core/register/stages';
import { USUAL_RHYTHM, USUAL_SUITABILITY } from '../../core/releases';
import { mayDraw } from '../../core/releases/drawn';
import { content, document, place, version } from '../platform/db/schema';
import { answers } from '../platform/runner/act';

export const settings = answers(contract.settings, {
	async run({ services, project: { settings: held, name } }) {
		return {
			copyStamp: held.copyStamp ?? '',
			publishingPurposes: held.publishingPurposes ?? [...USUAL_PUBLISHING],
			suitability: held.suitability ?? USUAL_SUITABILITY,
			stages: [...stagesOf(held)],
			approveOwn: held.approveOwn ?? false,
			issueNeeds: held.issueNeeds ?? 'number',
			answersDraw: mayDraw(held),
			routes: (held.routes ?? []).map(({ steps, ...one }) => ({
				...one,
				steps: steps.map((step) => ({ ...step, of: [...step.of] }))
			})),
			distribution: (held.distribution ?? []).map((one) => ({
				...one,
				purposes: [...one.purposes],
				departments: [...one.departments],
				zones: [...one.zones],
				types: [...one.types]
			})),
			registerReport: held.registerReport ?? { weekday: null, to: [] },
			reminders: held.reminders ?? USUAL_RHYTHM,
			mailSender: held.mailSender ?? { name: '', replyTo: '' },
			sends: { name, address: services.config.mailFrom }
		};
	}
});

export const titleBlocks = answers(contract.titleBlocks, {
	async run({ db, project: here, reach }) {
		// Removed ones are not looked at.
		const rows = await db
			.select({
				document: document.id,
				number: document.number,
				title: document.title,
				label: version.label,
				inspection: content.inspection
			})
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.innerJoin(content, eq(content.hash, version.hash))
			.innerJoin(place, eq(place.id, document.id))
			.where(
				and(
					reach.sees(place.scope),
					eq(document.projectId, here.id),
					eq(document.live, true),
					eq(content.mediaType, 'application/pdf'),
					eq(content.preview, 'made')
				)
			)
			.orderBy(desc(document.changedAt))
			.limit(contract.SHEETS_TRIED * 6);
		return {
			// A place is tried on sheets that name themselves somewhere; papers of a project have no title block.
			sheets: rows
				.flatMap(({ inspection, ...row }) => {
					const words = inspection?.sheetWords ?? [];
					return inspection?.wide !== false && words.some((word) => word.text === row.number)
						? [{ ...row, words }]
						: [];
				})
				.slice(0, contract.SHEETS_TRIED + 1)
		};
	}
});
