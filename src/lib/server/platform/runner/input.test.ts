import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { parseInput } from './input';

const schema = z.strictObject({
	document: z.string(),
	reason: z.string().min(1, 'Say why.'),
	kind: z.enum(['a', 'b']).optional(),
	list: z.array(z.string()).max(2).optional()
});
function refusal(raw: unknown): { sentence: string; facts: Record<string, unknown> } {
	try {
		parseInput(schema, raw);
	} catch (error) {
		return error as never;
	}
	throw new Error('It fitted.');
}

describe('what does not fit', () => {
	it('is said with the schema’s own sentence, and names its field to programs', () => {
		expect(refusal({ document: 'x', reason: '' })).toMatchObject({
			sentence: 'Say why.',
			facts: { field: 'reason', faults: [{ field: 'reason', sentence: 'Say why.' }] }
		});
	});
	it.each([
		{},
		{ document: 1, reason: 'x' },
		{ document: 'x', reason: 'x', kind: 'c' },
		{ document: 'x', reason: 'x', list: ['a', 'b', 'c'] },
		{ document: 'x', reason: 'x', more: true }
	])('never shows people a field’s name or a program’s words: %j', (raw) => {
		const { sentence, facts } = refusal(raw);
		expect(sentence).not.toMatch(
			/document|reason|kind|list|more\b|Invalid|expected (string|array)|undefined/
		);
		expect((facts.faults as unknown[]).length).toBeGreaterThan(0);
		for (const fault of facts.faults as { sentence: string }[]) expect(fault.sentence).toMatch(/\.$/);
	});
});
