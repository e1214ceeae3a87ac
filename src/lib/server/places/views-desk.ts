import * as contract from '../../contract/desks';
import { answers } from '../platform/runner/act';
import { deskOf } from './desks';

export const desk = answers(contract.desk, {
	async run({ db, project, reach, person: me }) {
		const there = await deskOf(db, project.id, me.id);
		// Whoever looks as somebody does not see their desk.
		const seen = there && reach.level(there.id) ? there.id : null;
		return { id: seen, may: !reach.subject.outside };
	}
});
