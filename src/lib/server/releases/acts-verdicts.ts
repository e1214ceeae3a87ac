import { and, eq } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { canConsolidate } from '../../core/releases';
import { releaseItem } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { releaseItems } from './checks';
import { saidOn } from './settling';
import { workOn } from './returned';

export const consolidateVerdicts = does(contract.consolidateVerdicts, {
	async run(context, input) {
		const { tx, project: here, person: by, release: about, now, tell } = context;
		const item = (await releaseItems(tx, about.id)).find((one) => one.documentId === input.document);
		if (!item) throw new Problem('conflict', 'The document is not in this release.');
		if (item.outcome)
			throw new Problem('conflict', `The verdicts on ${item.number} have come to ${item.outcome} already.`);
		const [said] = await saidOn(tx, about.id, [input.document]);
		if (!canConsolidate(said!.given))
			throw new Problem(
				'conflict',
				said!.given.length > 1
					? `Nobody has answered ${item.number} yet.`
					: `One person answers ${item.number}; their verdict stands as they give it.`
			);
		await tx
			.update(releaseItem)
			.set({ outcome: input.code, outcomeAt: now, outcomeBy: by.id, outcomeReason: input.reason })
			.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, input.document)));
		tell({
			kind: 'verdict.consolidated',
			placeId: item.documentId,
			documentId: item.documentId,
			releaseId: about.id,
			details: {
				number: item.number,
				label: item.chosenLabel,
				code: input.code,
				reason: input.reason,
				release: about.number
			}
		});
		await workOn(context, about, item, input.code, [
			{ code: input.code, remark: input.reason, by: `${by.name}, ${here.name}`, placed: [], drawn: [] },
			...said!.says.filter((one) => one.remark !== '' || one.placed.length > 0 || one.drawn.length > 0)
		]);
		return {};
	}
});
