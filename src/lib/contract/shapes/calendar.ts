import { z } from 'zod';
import { WEEKDAYS } from '../../core/time/working-days';
import { day } from '../fields';

/** The days that a project works on (G7). */
export const workCalendar = z.strictObject({
	weekend: z.array(z.enum(WEEKDAYS)).max(6, 'A week has at least one working day.'),
	holidays: z
		.array(
			z.strictObject({ day, name: z.string().trim().min(1, 'Say what the holiday is called.').max(120) })
		)
		.max(400, 'At most 400 holidays.')
});
