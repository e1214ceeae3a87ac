import { eq } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { isSheetKind } from '../../core/files/kinds';
import { plainRemark, type Anchor } from '../../core/remarks/remarks';
import { document, remark } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { nextNumber } from '../remarks/acts';
import { itemOnRoute } from './on-route';

export const remarkInRelease = does(contract.remarkInRelease, {
	async run({ tx, person: by, release: about, reach, now, newId, tell }, input) {
		const item = await itemOnRoute(tx, reach, about.id, input.document);
		if (input.at && !isSheetKind(item.mediaType))
			throw new Problem('invalid', 'This file has no sheet on which a remark can stand.', { field: 'at' });
		// Numbers are counted one after the other.
		await tx.select({ id: document.id }).from(document).where(eq(document.id, input.document)).for('update');
		const anchor: Anchor = input.at ? { on: 'place', ...input.at } : { on: 'version' };
		const made = { id: newId(), number: await nextNumber(tx, input.document) };
		await tx.insert(remark).values({
			...made,
			documentId: input.document,
			versionId: item.versionId,
			anchor,
			text: input.text,
			createdBy: by.id,
			releaseId: about.id,
			createdAt: now
		});
		tell({
			kind: 'remark.added',
			placeId: input.document,
			documentId: input.document,
			releaseId: about.id,
			details: {
				number: item.number,
				label: item.chosenLabel,
				remark: made.number,
				text: plainRemark(input.text)
			}
		});
		return made;
	}
});
