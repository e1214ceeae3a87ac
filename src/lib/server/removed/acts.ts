import { eq } from 'drizzle-orm';
import * as contract from '../../contract/removed';
import { allows, type Level } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { live } from '../access/reach';
import { holdTree } from '../access/scopes';
import { place } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { visiblePlaces } from '../platform/runner/locate';
import { removeDocuments, removeWhole } from './remove';
import { bringBackAll } from './restore';

export const removePlace = does(contract.removePlace, {
	async run(context, input) {
		const { tx, project, place: target, level } = context;
		await holdTree(tx, project.id);
		return { documents: await removeWhole(context, target, level, input.reason) };
	}
});

export const removePlaces = does(contract.removePlaces, {
	async run(context, input) {
		const { tx, project, reach } = context;
		await holdTree(tx, project.id);
		const wanted = [...new Set(input.places)].sort();
		const places = await visiblePlaces(tx, reach, wanted);
		if (places.length < wanted.length)
			throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
		// What lies in a folder that is chosen too goes with it.
		const tops = places.filter(
			(one) => !places.some((other) => other.id !== one.id && one.path.startsWith(other.path))
		);
		const levels = new Map<string, Level>();
		for (const target of tops) {
			const level = reach.held(target, target, ['archived']);
			if (!level || !allows(level, 'work'))
				throw new Problem(
					'needs-level',
					`Removing “${target.name}” needs Work there, and that it is not frozen or in somebody’s hand. Nothing was removed.`,
					{ needed: 'work' }
				);
			levels.set(target.id, level);
		}
		const single = tops.filter((one) => one.kind === 'document');
		await removeDocuments(context, single, levels, input.reason);
		let documents = single.length;
		for (const folder of tops.filter((one) => one.kind !== 'document'))
			documents += await removeWhole(context, folder, levels.get(folder.id)!, input.reason);
		return { removed: tops.map((p) => p.id), documents };
	}
});

export const restorePlace = does(contract.restorePlace, {
	async run(context, input) {
		const { tx, project, place: target } = context;
		await holdTree(tx, project.id);
		const [fresh] = await tx.select().from(place).where(eq(place.id, input.place)).for('update');
		if (!fresh?.removalId) throw new Problem('conflict', 'It was restored a moment ago.');
		return bringBackAll(context, [{ ...target, removalId: fresh.removalId, level: context.level }]);
	}
});

export const restorePlaces = does(contract.restorePlaces, {
	async run(context, input) {
		const { tx, project, reach } = context;
		await holdTree(tx, project.id);
		const wanted = [...new Set(input.places)];
		const gone = await visiblePlaces(tx, reach, wanted, live(true));
		const back = await visiblePlaces(tx, reach, wanted);
		if (gone.length + back.length < wanted.length)
			throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
		return bringBackAll(
			context,
			gone.map((one) => ({
				...one,
				removalId: one.removalId!,
				level: reach.held(one, one, ['archived', 'inHand'])
			}))
		);
	}
});
