import { describe, expect, it } from 'vitest';
import { checkItem, outgoingName, releaseNumber, worst, type ItemFacts } from './releases';

const good: ItemFacts = {
	chosenLabel: 'P03.2',
	newestLabel: 'P03.2',
	isNewest: true,
	inHandOf: null,
	removed: false,
	openRemarks: 0,
	fault: null,
	unchecked: false
};

describe('checks of a release', () => {
	it('are fine for a newest, free file that opens', () => {
		expect(worst(checkItem(good))).toBe('fine');
	});
	it.each<[Partial<ItemFacts>, string, string, string | null]>([
		[{ isNewest: false, newestLabel: 'P03.3' }, 'newest', 'stops', 'take-newest'],
		[{ removed: true }, 'newest', 'stops', 'leave-out'],
		[{ inHandOf: 'Aino Weir' }, 'free', 'stops', 'leave-out'],
		[{ fault: 'The PDF is encrypted.' }, 'opens', 'stops', 'leave-out'],
		[{ openRemarks: 2 }, 'settled', 'look', null],
		[{ unchecked: true }, 'opens', 'look', null]
	])('%j', (change, name, result, remedy) => {
		const checks = checkItem({ ...good, ...change });
		expect(checks.find((c) => c.name === name)).toMatchObject({ result, remedy });
		expect(worst(checks)).toBe(result);
	});
	it('name files so that no part can leave the folder', () => {
		expect(outgoingName('VFT-1', 'P03', 'a/b\\c: d', 'dxf')).toBe('VFT-1_P03 a-b-c- d.dxf');
		expect(releaseNumber(42)).toBe('0042');
	});
});
