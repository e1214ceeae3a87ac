import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import {
	checkItem,
	differences,
	outgoingName,
	releaseNumber,
	worst,
	type Build,
	type BuildItem,
	type ItemFacts,
	isReplyOverdue
} from './index';

const named = {
	number: 'VFT-MW-LS-00-DR-0102',
	revision: null,
	current: 'P02',
	how: 'current',
	there: true
} as const;
const good: ItemFacts = {
	number: 'VFT-MW-LS-00-DR-0101',
	chosenLabel: 'P03.2',
	newestLabel: 'P03.2',
	isNewest: true,
	inHandOf: null,
	holderAsked: false,
	removed: false,
	frozen: null,
	named: [],
	namedAs: [],
	openRemarks: 0,
	fault: null,
	unchecked: false,
	unhandedIn: false,
	numberFault: null,
	titleBlock: { number: 'VFT-MW-LS-00-DR-0101', revision: 'P03' },
	writable: false,
	twins: [],
	to: 'P03',
	demanded: 'P',
	sequence: 'P'
};

describe('checks of a release', () => {
	it('are fine for a newest, free file that opens', () => {
		expect(worst(checkItem(good))).toBe('fine');
	});
	it.each<[Partial<ItemFacts>, string, string, string | null]>([
		[{ isNewest: false, newestLabel: 'P03.3' }, 'newest', 'stops', 'take-newest'],
		[{ removed: true }, 'newest', 'stops', 'leave-out'],
		[{ inHandOf: 'Aino Weir' }, 'free', 'stops', 'ask-holder'],
		[{ inHandOf: 'Aino Weir', holderAsked: true }, 'free', 'stops', 'leave-out'],
		[{ fault: 'The PDF is encrypted.' }, 'opens', 'stops', 'leave-out'],
		[{ namedAs: ['P01', 'P02'] }, 'named-by', 'look', null],
		[{ openRemarks: 2 }, 'settled', 'look', 'settle-remarks'],
		[{ frozen: 'client review' }, 'frozen', 'look', null],
		[{ named: [{ ...named, current: null, how: 'not-issued' }] }, 'references', 'look', 'add-references'],
		[{ named: [{ ...named, current: null, how: 'unknown', there: false }] }, 'references', 'look', null],
		[{ named: [{ ...named, revision: 'P01', how: 'older' }] }, 'references', 'look', null],
		[{ unchecked: true }, 'opens', 'look', null],
		[{ unhandedIn: true }, 'handed-in', 'stops', 'leave-out'],
		[{ numberFault: 'Zone XY is not one.' }, 'number', 'look', null],
		[
			{ titleBlock: { number: 'VFT-MW-LS-00-DR-0102', revision: 'P03' } },
			'title-block',
			'stops',
			'leave-out'
		],
		[{ titleBlock: { number: null, revision: 'P02' } }, 'title-block', 'look', null],
		[
			{ titleBlock: { number: null, revision: 'P02' }, writable: true },
			'title-block',
			'look',
			'write-title-block'
		],
		[
			{ titleBlock: { number: 'VFT-MW-LS-00-DR-0102', revision: null }, writable: true },
			'title-block',
			'stops',
			'write-title-block'
		],
		[
			{ titleBlock: { number: 'X', revision: null }, writable: true, sequence: null, to: null },
			'title-block',
			'stops',
			'leave-out'
		],
		[{ twins: ['VFT-MW-LS-00-DR-0102'] }, 'same-bytes', 'look', 'leave-out'],
		[{ sequence: null, to: null }, 'revision', 'stops', 'leave-out'],
		[{ demanded: 'C', to: 'P03' }, 'revision', 'look', null],
		[{ chosenLabel: 'P03', to: 'P03' }, 'issued-before', 'look', 'leave-out']
	])('%j', (change, name, result, remedy) => {
		const checks = checkItem({ ...good, ...change });
		expect(checks.find((c) => c.name === name)).toMatchObject({ result, remedy });
		expect(worst(checks)).toBe(result);
	});
	it('let a sheet say its own label, the revision it prepares, or what it becomes', () => {
		for (const revision of ['P03.2', 'P03', 'C01', null])
			expect(
				worst(checkItem({ ...good, to: 'C01', demanded: 'C', titleBlock: { number: null, revision } }))
			).toBe('fine');
	});
	it('ask no more about what somebody accepted with a reason, and still stop what stops', () => {
		const accepted = { reason: 'agreed', by: 'Ines', at: '2026-11-23T08:00:00.000Z' };
		const checks = checkItem({ ...good, openRemarks: 1 }).map((c) =>
			c.result === 'look' ? { ...c, accepted } : c
		);
		expect(worst(checks)).toBe('fine');
		const stopping = checkItem({ ...good, inHandOf: 'Aino' }).map((c) => ({ ...c, accepted }));
		expect(worst(stopping)).toBe('stops');
	});
	it('name files so that no part can leave the folder', () => {
		expect(outgoingName('VFT-1', 'P03', 'a/b\\c: d', 'dxf')).toBe('VFT-1_P03 a-b-c- d.dxf');
		expect(releaseNumber(42)).toBe('0042');
	});
});

describe('what changed in a build', () => {
	const item = fc.record({
		number: fc.constantFrom('A', 'B', 'C', 'D'),
		title: fc.constantFrom('t', 'u'),
		label: fc.constantFrom('P01.1', 'P01.2'),
		to: fc.constantFrom('P01', 'C01'),
		hash: fc.constantFrom('1', '2'),
		accepted: fc.constantFrom<BuildItem['accepted']>([], [{ check: 'settled', sentence: 's', reason: 'r' }])
	});
	const build: fc.Arbitrary<Build> = fc.record({
		title: fc.constantFrom('x', 'y'),
		purpose: fc.constantFrom('comment', 'approval'),
		recipients: fc.constantFrom(['M'], ['M', 'N']),
		words: fc.constantFrom('', 'Please look at the hinge.'),
		route: fc.constantFrom(['Check: H'], ['Check: H', 'Approval: T']),
		replyBy: fc.option(fc.constant('2026-12-01'), { nil: null }),
		items: fc.uniqueArray(item, { selector: (i) => i.number })
	});

	it('is said whenever anything did, and never when nothing did', () => {
		fc.assert(
			fc.property(build, build, (a, b) => {
				const sorted = (one: Build) =>
					JSON.stringify({ ...one, items: [...one.items].sort((x, y) => (x.number < y.number ? -1 : 1)) });
				expect(differences(a, b).length > 0).toBe(sorted(a) !== sorted(b));
			}),
			{ numRuns: 2_000 }
		);
	});
});

it('a build that was stored and read again, its fields in another order, is the same', () => {
	const build: Build = {
		title: 'x',
		purpose: 'comment',
		recipients: ['M'],
		words: '',
		route: ['Check: H'],
		replyBy: null,
		items: [
			{
				number: 'A',
				title: 't',
				label: 'P01.1',
				to: 'P01',
				hash: '1',
				accepted: [{ check: 'settled', sentence: 's', reason: 'r' }]
			}
		]
	};
	const turned = JSON.parse(
		JSON.stringify(build, (_, value: unknown) =>
			value !== null && typeof value === 'object' && !Array.isArray(value)
				? Object.fromEntries(Object.entries(value).reverse())
				: value
		)
	) as Build;
	expect(differences(turned, build)).toEqual([]);
});

describe('a reply', () => {
	const release = { state: 'issued', replyBy: '2026-11-27', answered: 1, differing: 1, asked: 3 };

	it('is overdue from the day after it was asked by, until every verdict is in', () => {
		expect(isReplyOverdue(release, '2026-11-27')).toBe(false);
		expect(isReplyOverdue(release, '2026-11-28')).toBe(true);
		expect(isReplyOverdue({ ...release, answered: 2 }, '2026-11-28')).toBe(false);
	});

	it('is not waited for before issue, once superseded, or when none was asked for', () => {
		for (const state of ['in-review', 'superseded'])
			expect(isReplyOverdue({ ...release, state }, '2026-11-28')).toBe(false);
		expect(isReplyOverdue({ ...release, replyBy: null }, '2026-11-28')).toBe(false);
	});
});
