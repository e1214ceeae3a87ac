import type { InputOf } from '../../src/lib/client/cupboard';
import { eventText } from '../../src/lib/core/events';
import { addDeliverables } from '../../src/lib/server/register/acts';
import { deliverable, register } from '../../src/lib/server/register/views';
import { activity } from '../../src/lib/server/trail/views';
import type { TestWorld } from './world';

export const project = 'VFT';
type New = InputOf<'addDeliverables'>['deliverables'][number];

/** What tests of the register do again and again in a world. */
export function registerIn(world: TestWorld) {
	let serial = 500;
	const nextNumber = (department = 'MW') => `VFT-${department}-QW-00-DR-${String(++serial).padStart(4, '0')}`;
	const newest = async (who = 'ines') => (await world.read(who, activity, { project })).events[0]!;
	return {
		nextNumber,
		/** Puts one deliverable in the register. */
		async add(more: Partial<New> = {}, who = 'ines') {
			const one = {
				number: nextNumber(),
				title: 'Quay wall section',
				department: world.departments.MW!,
				...more
			};
			const { ids } = await world.act(who, addDeliverables, { project, deliverables: [one] });
			return { id: ids[0]!, number: one.number };
		},
		lines: (who = 'ines', more: object = {}) => world.read(who, register, { project, ...more }),
		lineOf: (id: string, who = 'ines') => world.read(who, deliverable, { project, deliverable: id }),
		newest,
		/** What the newest event says. */
		says: async () => eventText(await newest(), { day: String, moment: String })
	};
}
