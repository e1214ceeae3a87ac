import * as contract from '../../contract/desks';
import { Problem } from '../../core/acts/problem';
import { holdTree } from '../access/scopes';
import { grant, place } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { deskName, deskOf } from './desks';

export const openDesk = does(contract.openDesk, {
	async run({ tx, project, reach, person: by, now, newId, tell }) {
		if (reach.subject.outside)
			throw new Problem(
				'needs-level',
				'Desks are for people inside the project. Work in the folders given to you.'
			);
		await holdTree(tx, project.id);
		const there = await deskOf(tx, project.id, by.id);
		if (there) return there;
		const id = newId();
		await tx.insert(place).values({
			id,
			projectId: project.id,
			path: id,
			kind: 'shelf',
			name: deskName(by.name),
			// Two people may have one name; no shelf has a key like this.
			nameKey: `desk/${by.id}`,
			scope: id,
			deskOf: by.id,
			createdBy: by.id,
			createdAt: now
		});
		await tx.insert(grant).values({
			id: newId(),
			placeId: id,
			subjectKind: 'person',
			subjectId: by.id,
			level: 'organise',
			createdAt: now
		});
		tell({ kind: 'desk.made', placeId: id, details: {} });
		return { id };
	}
});
