import { and, eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/release-views';
import { partOf } from '../../core/register/numbers';
import { proposed } from '../../core/releases';
import { document, releaseItem } from '../platform/db/schema';
import { answers } from '../platform/runner/act';

export const proposedRecipients = answers(contract.proposedRecipients, {
	async run({ db, project: here }, input) {
		const rules = here.settings.distribution ?? [];
		// Whoever asks controls the project, and so may look at all of its documents.
		const chosen = input.release
			? inArray(
					document.id,
					db
						.select({ id: releaseItem.documentId })
						.from(releaseItem)
						.where(eq(releaseItem.releaseId, input.release))
				)
			: inArray(document.id, input.documents);
		const rows =
			input.release || input.documents.length
				? await db
						.select({ id: document.id, number: document.number })
						.from(document)
						.where(and(eq(document.projectId, here.id), chosen))
						.orderBy(document.number)
				: [];
		const part = (number: string, key: string) => partOf(here.settings.numbering, number, key);
		return {
			recipients: proposed(
				rules,
				input.purpose,
				rows.map(({ id, number }) => ({
					id,
					department: part(number, 'department'),
					zone: part(number, 'zone'),
					type: part(number, 'type')
				}))
			)
		};
	}
});
