import { z } from 'zod';
import { EXPECTS, PROOFS } from '../../core/releases';
import { MOST_CODES, MOST_RULES, type DistributionRule } from '../../core/releases/distribution';
import { PURPOSES } from '../../core/revisions/revisions';
import { id } from '../fields';

const codes = z
	.array(z.string().trim().min(1).max(12).regex(/^\S+$/, 'A code has no spaces.'))
	.max(MOST_CODES, `A rule names ${MOST_CODES} codes at most.`);

/** Who gets which documents for which purposes; what a rule leaves empty fits anything. */
export const distribution = z
	.array(
		z.strictObject({
			recipient: id,
			expects: z.enum(EXPECTS),
			asks: z.enum(PROOFS),
			purposes: z.array(z.enum(PURPOSES)).max(PURPOSES.length),
			departments: codes,
			zones: codes,
			types: codes
		}) satisfies z.ZodType<DistributionRule>
	)
	.max(MOST_RULES, `A distribution list has ${MOST_RULES} rules at most.`);
