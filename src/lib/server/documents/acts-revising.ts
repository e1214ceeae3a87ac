import { isDeepStrictEqual } from 'node:util';
import { eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/documents';
import { inHand } from '../../core/access/may';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { stateIssued } from '../../core/documents/state';
import {
	checkScheme,
	label,
	nextIssue,
	parse,
	PURPOSE_LABEL,
	type RevisionScheme
} from '../../core/revisions/revisions';
import { document, project as projectTable, version } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { heldLock } from '../platform/runner/held';

export const issueRevision = does(contract.issueRevision, {
	async run({ tx, project, document: held, person: by, now, newId, tell }, input) {
		if (project.settings.releasePurposes.includes(input.purpose))
			throw new Problem(
				'conflict',
				`“${PURPOSE_LABEL[input.purpose]}” needs a release in this project, so that a second person has looked at it. Put the document in one.`
			);
		const scheme = project.settings.revisions;
		const current = parse(scheme, held.current.label);
		if (!current)
			throw new Problem('conflict', `${held.current.label} does not fit the revision scheme any more.`);
		const to = label(scheme, nextIssue(scheme, current, input.purpose));
		if (to === held.current.label)
			throw new Problem('conflict', `${to} is issued already, and nothing was handed in since.`);
		const versionId = newId();
		await tx.insert(version).values({
			id: versionId,
			documentId: held.row.id,
			seq: held.current.seq + 1,
			label: to,
			issued: true,
			hash: held.current.hash,
			fileName: held.current.fileName,
			note: `Issued ${PURPOSE_LABEL[input.purpose].toLowerCase()}: ${input.note}`,
			createdBy: by.id,
			createdAt: now
		});
		await tx
			.update(document)
			.set({
				currentVersionId: versionId,
				versions: held.row.versions + 1,
				state: stateIssued(input.purpose, project.settings.publishingPurposes),
				changedAt: now,
				changedBy: by.id
			})
			.where(eq(document.id, held.row.id));
		tell({
			kind: 'document.revised',
			placeId: held.row.id,
			documentId: held.row.id,
			details: {
				number: held.row.number,
				label: to,
				from: held.current.label,
				purpose: input.purpose,
				reason: input.note,
				hash: held.current.hash
			}
		});
		return { label: to };
	}
});

export const changeState = does(contract.changeState, {
	async run({ tx, document: { row, current, open }, person: by, tell }, input) {
		if (row.state === input.state) throw new Problem('conflict', 'It is in this state already.');
		if (open && input.state !== 'wip') orRefuse(inHand(heldLock(open, by.id)));
		if (['shared', 'published'].includes(input.state) && !current.issued)
			throw new Problem(
				'conflict',
				`${current.label} is a working save; only an issued revision is shared or published. Issue it first.`
			);
		await tx.update(document).set({ state: input.state }).where(eq(document.id, row.id));
		tell({
			kind: 'document.state-changed',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, from: row.state, to: input.state, reason: input.reason }
		});
		return {};
	}
});

export const changeRevisionScheme = does(contract.changeRevisionScheme, {
	async run({ tx, project, tell }, input) {
		const scheme: RevisionScheme = { sequences: input.sequences, demands: input.demands };
		const [fresh] = await tx.select().from(projectTable).where(eq(projectTable.id, project.id)).for('update');
		// One label for each form there is: how many documents wear it does not matter.
		const used = await tx.execute<{ label: string }>(sql`
			select min(v.label) as label from version v join document d on d.id = v.document_id
			where d.project_id = ${project.id} group by regexp_replace(v.label, '[0-9]', '0', 'g')`);
		const fault = checkScheme(
			scheme,
			used.map((u) => u.label)
		);
		if (fault) throw new Problem('invalid', fault);
		if (isDeepStrictEqual(scheme, fresh!.settings.revisions)) return {};
		await tx
			.update(projectTable)
			.set({ settings: { ...fresh!.settings, revisions: scheme } })
			.where(eq(projectTable.id, project.id));
		tell({
			kind: 'project.scheme-changed',
			details: {
				before: fresh!.settings.revisions.sequences.map((s) => s.prefix),
				after: scheme.sequences.map((s) => s.prefix),
				note: input.note
			}
		});
		return {};
	}
});
