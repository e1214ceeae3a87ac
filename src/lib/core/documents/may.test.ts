import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERY_CAP } from '../access/decide';
import { LEVELS } from '../access/levels';
import { DOCUMENT_KINDS } from '../live/live';
import { MEDIA_TYPE } from '../files/media';
import { DOCUMENT_ACTS, DOCUMENT_RULES, mayDo, type DocumentFacts } from './may';

const now = new Date('2026-11-27T09:00:00Z');
const lock = fc.record({
	holder: fc.constant('Oke Lindvar'),
	holderId: fc.constant('oke'),
	mine: fc.boolean(),
	takenAt: fc.constant(now.getTime()),
	expectedEnd: fc.constant(null),
	purpose: fc.constantFrom('', 'flap hinges')
});
const facts: fc.Arbitrary<DocumentFacts> = fc.record({
	uncapped: fc.constantFrom(...LEVELS.filter((level) => level !== 'drop')),
	freeze: fc.option(fc.constant({ by: 'Ines Maddock', at: now, reason: 'Tender' })),
	archived: fc.boolean(),
	lock: fc.option(lock),
	onDesk: fc.boolean(),
	timeZone: fc.constant('Europe/Oslo'),
	now: fc.constant(now),
	number: fc.constant('VFT-MW-LS-00-DR-0101'),
	kind: fc.constantFrom(...DOCUMENT_KINDS),
	mediaType: fc.constantFrom(MEDIA_TYPE.docx, MEDIA_TYPE.csv, MEDIA_TYPE.dxf, MEDIA_TYPE.pdf),
	own: fc.boolean(),
	wish: fc.constantFrom('asked' as const, 'waits' as const, null),
	broken: fc.boolean()
});
const asking = { level: 'work' as const };

describe('what can be done with a document', () => {
	it('is refused to everybody else while somebody has it in hand, with who', () => {
		fc.assert(
			fc.property(facts, fc.constantFrom(...DOCUMENT_ACTS), (f, name) => {
				fc.pre(f.lock !== null && !f.lock.mine);
				const answer = mayDo({ ...asking, applies: DOCUMENT_RULES[name] }, f);
				expect(answer.may).toBe(false);
				const without = mayDo(asking, { ...f, lock: null });
				if (!answer.may && without.may)
					expect(answer.problem.facts).toMatchObject({ holder: f.lock!.holder });
			})
		);
	});

	it('never gets more by a freeze, an archive or a lock of another', () => {
		fc.assert(
			fc.property(facts, fc.constantFrom(...DOCUMENT_ACTS), (f, name) => {
				const asked = { ...asking, applies: DOCUMENT_RULES[name] };
				if (mayDo(asked, { ...f, freeze: { by: 'x', at: now, reason: 'y' } }).may)
					expect(mayDo(asked, { ...f, freeze: null }).may).toBe(true);
				if (mayDo(asked, { ...f, archived: true }).may)
					expect(mayDo(asked, { ...f, archived: false }).may).toBe(true);
			})
		);
	});

	it('keeps apart what is for a file and what is for a document edited together', () => {
		fc.assert(
			fc.property(facts, (f) => {
				const may = (name: keyof typeof DOCUMENT_RULES) =>
					mayDo({ ...asking, past: EVERY_CAP, applies: DOCUMENT_RULES[name] }, f).may;
				for (const name of [
					'handIn',
					'restoreVersion',
					'writeTitleBlock',
					'workLive',
					'workScheduleLive',
					'workDrawingLive'
				] as const)
					if (may(name)) expect(f.kind, name).toBe('file');
				for (const name of ['handInLive', 'restoreLive', 'endLive'] as const)
					if (may(name)) expect(f.kind, name).not.toBe('file');
				expect(
					[may('workLive'), may('workScheduleLive'), may('workDrawingLive')].filter(Boolean).length
				).toBeLessThan(2);
				expect(may('takeLock') && (may('giveBackLock') || may('askForLock') || may('breakLock'))).toBe(false);
			})
		);
	});
});
