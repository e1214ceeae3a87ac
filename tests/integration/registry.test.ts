import { describe, expect, it } from 'vitest';
import { ACTS } from '../../src/lib/server/api/acts';
import { VIEWS } from '../../src/lib/server/api/views';
import { eventText } from '../../src/lib/ui/platform/words';

describe('the registry', () => {
	it('has words for every kind of event that an act may write', () => {
		for (const kind of ACTS.flatMap((act) => act.events))
			expect(eventText({ kind, details: {} }), kind).not.toBe(kind);
	});

	it('gives every act and view a name and an address of its own', () => {
		const all = [...ACTS, ...VIEWS.map((view) => ({ ...view, method: 'GET' }))];
		const names = all.map((one) => one.name);
		const addresses = all.map((one) => `${one.method} ${one.path.replace(/\{\w+\}/g, '{}')}`);
		expect(names).toHaveLength(new Set(names).size);
		expect(addresses.filter((address, i) => addresses.indexOf(address) !== i)).toEqual([]);
	});

	it('takes every parameter of an address from the input', () => {
		for (const one of [...ACTS, ...VIEWS])
			for (const [, parameter] of one.path.matchAll(/\{(\w+)\}/g))
				expect(Object.keys(one.input.shape), one.name).toContain(parameter);
	});
});
