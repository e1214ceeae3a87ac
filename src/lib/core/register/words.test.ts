import { expect, it } from 'vitest';
import { EVERYTHING } from './list';
import { USUAL_STAGES } from './stages';
import { narrowingText } from './words';

it('says everything that a list is narrowed to, by names and not by keys', () => {
	const names = { stages: USUAL_STAGES, people: [{ id: 'p1', name: 'Oke Lindvar' }] };
	expect(narrowingText(EVERYTHING, names)).toBe('');
	expect(
		narrowingText(
			{
				...EVERYTHING,
				departments: ['MW', 'ST'],
				stage: 'approval',
				responsible: ['p1', 'p2'],
				late: true,
				missing: true,
				from: '2026-11-23',
				words: 'pile'
			},
			names
		)
	).toBe(
		'department MW, ST · For approval · responsible Oke Lindvar, somebody who left · late or slipping · numbers missing after it · due from 23 Nov 2026 · with “pile”'
	);
});
