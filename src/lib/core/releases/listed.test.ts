import { expect, it } from 'vitest';
import { standardRule } from '../numbering/numbering';
import { DEFAULT_SCHEME } from '../revisions/revisions';
import { listedNumbers } from './listed';

const RULE = standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]);

it('a pasted list names what its lines name: numbers by the rule anywhere, and the first word', () => {
	const list = [
		'VFT-MW-LS-00-DR-0101\tLinkspan, general arrangement\tP03',
		'',
		'  please add vft-mw-ls-00-dr-0102 and VFT-MW-LS-00-DR-0103 rev P02 ',
		'OLD/17; Quay wall',
		'the pit plan'
	].join('\r\n');
	expect(listedNumbers(list, RULE, DEFAULT_SCHEME).map((one) => one.numbers)).toEqual([
		['VFT-MW-LS-00-DR-0101'],
		['VFT-MW-LS-00-DR-0102', 'VFT-MW-LS-00-DR-0103', 'PLEASE'],
		['OLD/17'],
		['THE']
	]);
	expect(listedNumbers(' \n\n', RULE, DEFAULT_SCHEME)).toEqual([]);
});
