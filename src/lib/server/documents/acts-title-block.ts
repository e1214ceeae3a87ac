import * as contract from '../../contract/documents';
import { Problem } from '../../core/acts/problem';
import { MEDIA_TYPE } from '../../core/files/media';
import { parse } from '../../core/revisions/revisions';
import { keepMade, type Kept } from '../content/content';
import { unlessBusy } from '../formats/inspector';
import { does } from '../platform/runner/act';
import { addSave } from './acts';

interface Made {
	/** The bytes that it was made of. */
	of: string;
	file: Kept;
}

export const writeTitleBlock = does(contract.writeTitleBlock, {
	async prepare({ services, project, document: held, now }, { revision }): Promise<Made> {
		const { row, current } = held;
		if (!parse(project.settings.revisions, revision))
			throw new Problem('invalid', `${revision} is no revision of the project’s scheme.`, {
				field: 'revision'
			});
		const to = { number: row.number, revision };
		const bytes = await services.inspector.withTitleBlock(current.hash, to).catch(unlessBusy(null));
		if (!bytes)
			throw new Problem(
				'conflict',
				`${row.number} has no title block that can be written here, or it says ${revision} already. Change it in the program that drew it, and hand it in.`
			);
		return { of: current.hash, file: await keepMade(services, bytes, MEDIA_TYPE.dxf, now) };
	},
	async run({ tx, project, document: held, person: by, now, newId, prepared, tell, enqueue }, { revision }) {
		const { of, file } = prepared as Made;
		if (of !== held.current.hash)
			throw new Problem(
				'conflict',
				`${held.current.label} was handed in meanwhile. Look at it, and try again.`
			);
		const lockKept = held.open !== null;
		const note = `Number and revision ${revision} written in the title block`;
		const next = await addSave(
			tx,
			project,
			held,
			{ hash: file.hash, fileName: held.current.fileName, note, lockKept },
			{ personId: by.id, at: now, versionId: newId() }
		);
		await enqueue('read-content', { hash: file.hash });
		tell({
			kind: lockKept ? 'version.saved' : 'version.handed-in',
			placeId: held.row.id,
			documentId: held.row.id,
			details: { number: held.row.number, label: next, note, hash: file.hash, size: file.size }
		});
		return { label: next };
	}
});
