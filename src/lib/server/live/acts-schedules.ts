import * as Y from 'yjs';
import * as contract from '../../contract/live';
import { seedSchedule, type GivenSchedule } from '../../core/schedule/shared';
import { does, type ContextOf } from '../platform/runner/act';
import { addLive, beginOnFile, cut, stateOf, type Cut } from './acts';

function seeded(given: GivenSchedule, { newId }: Pick<ContextOf['place'], 'newId'>): Y.Doc {
	const doc = new Y.Doc({ gc: false });
	seedSchedule(doc, given, newId);
	return doc;
}

export const addLiveSchedule = does(contract.addLiveSchedule, {
	prepare: (context, input) => cut(context, 'schedule', seeded(input.schedule, context), input, input.format),
	run: (context, input) =>
		addLive(context, 'schedule', context.prepared as Cut, { ...input, note: 'Begun as live schedule' })
});

export const workScheduleLive = does(contract.workScheduleLive, {
	async run(context, input) {
		await beginOnFile(context, 'schedule', input, stateOf(seeded(input.schedule, context)));
		return {};
	}
});
