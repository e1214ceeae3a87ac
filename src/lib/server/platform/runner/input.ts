import type { z } from 'zod';
import { Problem } from '../../../core/acts/problem';

/** Said where a schema has no sentence of its own: mostly to programs, since forms ask for what they need. */
const GENERAL = 'Something that was sent is missing, or is not what is expected there. Nothing was changed.';

/**
 * What does not fit, in words: for whoever uses the API, beside the name of the field, which people never see. Schemas'
 * own sentences go before these.
 */
function says(issue: z.core.$ZodRawIssue): string {
	switch (issue.code) {
		case 'invalid_type':
			return issue.input === undefined
				? 'This is missing.'
				: `Something else is expected here: ${issue.expected}.`;
		case 'invalid_value':
			return `One of these is expected here: ${issue.values.map(String).join(', ')}.`;
		case 'too_small':
			return `Too little: at least ${issue.minimum}.`;
		case 'too_big':
			return `Too much: at most ${issue.maximum}.`;
		case 'unrecognized_keys':
			return `Not known here: ${issue.keys.join(', ')}.`;
		default:
			return 'This does not have the form that is expected here.';
	}
}

/**
 * What an act or a view was given, read by its schema.
 * Raises `invalid` with a sentence for people, and every fault with its field for programs.
 */
export function parseInput<S extends z.ZodObject>(schema: S, raw: unknown): z.output<S> {
	const general = new Set<string>();
	const result = schema.safeParse(raw, {
		error: (issue) => {
			const sentence = says(issue);
			general.add(sentence);
			return sentence;
		}
	});
	if (result.success) return result.data;
	const faults = result.error.issues.map((i) => ({ field: i.path.join('.'), sentence: i.message }));
	const own = faults.find((f) => !general.has(f.sentence));
	throw new Problem('invalid', own?.sentence ?? GENERAL, {
		...(own ? { field: own.field } : {}),
		faults
	});
}
