import { dayOf } from '../time/days';
import { DAY } from '../time/spans';
import { describe, expect, it } from 'vitest';
import type { Subject } from './decide';
import { explain, type Standing } from './explain';
import type { Level } from './levels';
import type { Grant } from './model';

const NOW = Date.UTC(2026, 10, 23);
const aino: Subject = {
	personId: 'aino',
	projectId: 'vft',
	controller: false,
	departments: ['st'],
	leads: [],
	groups: [],
	outside: false,
	ceiling: null
};
const free: Standing = { frozen: null, archived: false, inHandOf: null, closed: null };
const grant = (more: Partial<Grant>): Grant => ({
	id: 'g',
	placeId: 'linkspan',
	subjectKind: 'person',
	subjectId: 'aino',
	level: 'remark',
	exactly: false,
	endsAt: null,
	by: 'Oke Lindvar',
	byId: 'oke',
	at: NOW,
	underId: null,
	bringCount: 0,
	bringLevel: null,
	...more
});
const structures = (level: Level | null, more: Partial<Grant> = {}) =>
	grant({
		id: 'st',
		placeId: 'shelf',
		subjectKind: 'department',
		subjectId: 'st',
		level,
		by: 'Ines Maddock',
		at: NOW - 11 * DAY,
		...more
	});

function why(steps: { entries: Grant[]; closed?: boolean; desk?: boolean }[], standing = free, who = aino) {
	return explain(
		'Aino Weir',
		who,
		steps.map((s) => ({ closed: false, ...s })),
		standing,
		NOW,
		(g) => ({
			where: g.placeId === 'linkspan' ? 'here' : 'on Marine works',
			subject: g.subjectKind === 'department' ? 'Structures' : 'Aino Weir'
		}),
		(at) => dayOf(new Date(at), 'UTC').slice(5)
	);
}

describe('why (A9)', () => {
	it('says what decided, what else was considered, that nothing caps it, and what would change it', () => {
		const answer = why([{ entries: [grant({})] }, { entries: [structures('view')] }]);
		expect(answer).toMatchObject({ level: 'remark', held: 'remark', grantId: 'g' });
		expect(answer.reasons).toEqual([
			'Remark, given here by Oke Lindvar on 11-23.',
			'Structures also has View, given on Marine works by Ines Maddock on 11-12. The higher one holds.'
		]);
		expect(answer.caps).toEqual(['Nothing caps it: no freeze, not archived.']);
		expect(answer.changes).toEqual(['If that grant ends, Aino Weir keeps View through Structures.']);
	});

	it('names the freeze that lowers it, with its reason', () => {
		const frozen = { by: 'Ines Maddock', at: NOW, reason: 'release 0042' };
		const answer = why([{ entries: [grant({ level: 'work' })] }], { ...free, frozen });
		expect(answer.level).toBe('remark');
		expect(answer.caps).toEqual(['Capped from Work by the freeze of Ines Maddock on 11-23: release 0042.']);
	});

	it('says through whom somebody is barred, and what would stand against it', () => {
		const answer = why([{ entries: [structures(null)] }]);
		expect(answer.level).toBeNull();
		expect(answer.reasons[0]).toContain('Barred through Structures');
		expect(answer.changes[0]).toContain('If that bar ends');
	});

	it('says why an entry does not count: ended, replaced by a nearer one, or kept out by a closed folder', () => {
		expect(why([{ entries: [grant({ endsAt: NOW - DAY })] }]).reasons.join(' ')).toContain('ended on 11-22');
		const nearer = why([
			{ entries: [structures('view', { placeId: 'linkspan' })] },
			{ entries: [structures('work', { id: 'old' })] }
		]);
		expect(nearer.level).toBe('view');
		expect(nearer.reasons.join(' ')).toContain('is replaced by the nearer one');
		const closed = why([{ entries: [], closed: true }, { entries: [structures('work')] }], {
			...free,
			closed: 'Supplier papers'
		});
		expect(closed.level).toBeNull();
		expect(closed.reasons.join(' ')).toContain('does not reach past Supplier papers, which is closed');
	});

	it('says that a bar, or a grant given exactly, above a closed folder goes on holding', () => {
		const shut = { ...free, closed: 'Supplier papers' };
		const leads = structures('manage', { id: 'l', subjectKind: 'leads' });
		const who = { ...aino, leads: ['st'] };
		const bar = why([{ entries: [], closed: true }, { entries: [grant({ level: null }), leads] }], shut, who);
		expect(bar.level).toBeNull();
		expect(bar.reasons[0]).toContain('is barred');
		const exactly = why(
			[{ entries: [], closed: true }, { entries: [grant({ level: 'view', exactly: true }), leads] }],
			shut,
			who
		);
		expect(exactly.level).toBe('view');
		expect(exactly.reasons.join(' ')).toContain('closing a place never gives more');
	});

	it('says who has it in hand, since that caps everybody else', () => {
		const answer = why([{ entries: [grant({ level: 'work' })] }], { ...free, inHandOf: 'Oke Lindvar' });
		expect(answer.level).toBe('remark');
		expect(answer.caps).toEqual(['Capped at Remark while Oke Lindvar has it in hand.']);
	});

	it('says that the project limits people outside', () => {
		const outside = { ...aino, outside: true, ceiling: 'download' as const };
		const answer = why([{ entries: [grant({ level: 'work' })] }], free, outside);
		expect(answer.level).toBe('download');
		expect(answer.caps[0]).toBe('Capped from Work: the project gives people outside Download at most.');
	});

	it('says of a controller that the rule of the project decides', () => {
		const answer = why([{ entries: [structures(null)] }], free, { ...aino, controller: true });
		expect(answer.level).toBe('manage');
		expect(answer.reasons).toHaveLength(1);
	});

	it('says when nothing was given at all', () => {
		const answer = why([{ entries: [] }]);
		expect(answer.reasons).toEqual(['Nothing that was given reaches Aino Weir here.']);
		expect(answer.changes[0]).toContain('A grant to Aino Weir');
	});

	it('says at a desk that it is its person’s own, and nothing of being a document controller', () => {
		const own = grant({ level: 'organise', by: null, byId: null });
		expect(why([{ entries: [own], desk: true }])).toMatchObject({
			level: 'organise',
			reasons: ['Organise, which comes with the desk, here.']
		});
		const other = why([{ entries: [own], desk: true }], free, {
			...aino,
			personId: 'ines',
			controller: true
		});
		expect(other).toMatchObject({
			level: null,
			reasons: ['Nothing that was given reaches Aino Weir here.'],
			changes: ['Nothing: a desk is one person’s own, and nobody else is let in.']
		});
	});
});
