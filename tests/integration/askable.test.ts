import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CONTRACTS } from '../../src/lib/contract';
import { DOCUMENT_ACTS, DOCUMENT_RULES, type DocumentAct } from '../../src/lib/core/documents/may';
import { letIn } from '../../src/lib/server/access/acts';
import { ACTS } from '../../src/lib/server/api/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { restorePlace } from '../../src/lib/server/removed/acts';
import { textSchema } from '../../src/lib/core/text/schema';
import { seeded } from '../seeded';
import { refused, TestWorld } from './world';

/** How many states a document goes through. */
const STEPS = 50;
const WHO = ['ines', 'ines', 'oke', 'oke', 'rhosyn', 'rhosyn', 'halla', 'petra'] as const;

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
	// Ines manages, Oke and Rhosyn work, Halla remarks and Petra looks.
	for (const [who, level] of [
		['halla', 'remark'],
		['petra', 'view']
	] as const)
		await world.act('oke', letIn, {
			place: world.folder,
			lines: [{ subject: { kind: 'person', id: world.people[who]!.person.id }, level }]
		});
});
afterAll(() => world.close());

const act = (name: DocumentAct) => ACTS.find((one) => one.name === name)!;
const text = (words: string) =>
	textSchema
		.node('doc', null, [textSchema.node('paragraph', null, [textSchema.text(words)])])
		.toJSON() as unknown;

describe('what can be done with a document is told by the same rule that the runner asks', () => {
	it('every act of a document has its rule, and every rule its act', () => {
		const ruled = CONTRACTS.flatMap(({ name, at }) =>
			at.kind !== 'release' && 'applies' in at && at.applies ? [[name, at.applies] as const] : []
		);
		for (const [name, rule] of ruled) expect(rule, name).toBe(DOCUMENT_RULES[name as DocumentAct]);
		const plain = ['downloadDocument', 'makePass'];
		expect([...ruled.map(([name]) => name), ...plain].sort()).toEqual([...DOCUMENT_ACTS].sort());
		for (const name of DOCUMENT_ACTS) expect(act(name), name).toBeDefined();
	});

	it('through any history: what says no is refused with that sentence, what says yes is done', async () => {
		const chance = seeded('the history of a document');
		const one = <T>(of: readonly T[]): T => of[Math.floor(chance() * of.length)]!;
		const { id } = await world.add('oke', 'the first words');
		const idOf = (who: string) => world.people[who]!.person.id;
		let seen = await world.read('ines', documentView, { document: id });
		let serial = 0;

		/** What an act is given by somebody so that it fails, if it does, for what stands at the document only. */
		async function inputOf(name: DocumentAct, who: string): Promise<Record<string, unknown> | null> {
			const { row, versions, sides } = seen;
			const older = versions.find((v) => v.hash !== row.hash && v.label !== row.label);
			const side = sides.find((s) => s.state === 'open' && s.hash !== row.hash);
			const bytes = () => world.send(who, `words ${++serial}`);
			switch (name) {
				case 'takeLock':
					return { document: id, purpose: `for ${who}` };
				case 'extendLock':
					return { document: id, expectedEnd: new Date(Date.now() + ++serial * 3_600_000).toISOString() };
				case 'handOverLock':
					return { document: id, to: idOf(who === 'oke' ? 'rhosyn' : 'oke') };
				case 'askForLock':
				case 'waitForLock':
				case 'giveBackLock':
				case 'answerBrokenLock':
					return { document: id };
				case 'breakLock':
				case 'discardSide':
				case 'removePlace':
					return {
						...(name === 'removePlace' ? { place: id } : { document: id }),
						...(name === 'discardSide' ? { side: side?.number ?? 99 } : {}),
						reason: 'tried'
					};
				case 'handIn':
					return { document: id, upload: await bytes(), note: 'tried' };
				case 'mergeSide':
					return { document: id, side: side?.number ?? 99 };
				case 'restoreVersion':
				case 'restoreLive':
					return { document: id, label: older?.label ?? 'P99' };
				case 'workLive':
					return { document: id, base: row.label, text: text(`live ${++serial}`) };
				case 'workScheduleLive':
					return {
						document: id,
						base: row.label,
						schedule: { columns: [{ name: 'Mark', kind: 'text' }], rows: [] }
					};
				case 'writeTitleBlock':
					return { document: id, revision: 'P03' };
				case 'workDrawingLive':
					return { document: id, base: row.label };
				case 'handInLive':
					return { document: id, note: 'tried' };
				case 'endLive':
					return { document: id };
				case 'addLivePicture':
					return { document: id, upload: await bytes() };
				case 'giveLayer':
					return { document: id, layer: '0', department: null };
				case 'issueRevision':
					return { document: id, purpose: 'information', note: 'tried' };
				case 'changeState':
					return { document: id, state: row.state === 'archived' ? 'wip' : 'archived', reason: 'tried' };
				case 'changeDocument':
					return { document: id, title: `Sheet ${++serial}` };
				case 'makePass':
					return null;
				case 'downloadDocument':
					return { document: id, label: row.label };
			}
		}
		/** What an answer of yes does not speak of: what else is given to the act, or lies in the live document. */
		const asked =
			/no version|no side version|same content|same bytes|Nothing was changed since|since the newest version|was not edited together|is issued already|fits? the revision scheme|needs a release|made from|picture/i;

		const done = new Map<string, number>();
		for (let step = 0; step < STEPS; step++) {
			seen = await world.read('ines', documentView, { document: id });
			const who = one(WHO);
			const { can, row } = await world.read(who, documentView, { document: id });
			const yes: DocumentAct[] = [];
			for (const name of DOCUMENT_ACTS) {
				if (can[name].may) {
					yes.push(name);
					continue;
				}
				const input = await inputOf(name, who);
				if (!input) continue;
				const { sentence, code } = await refused(world.act(who, act(name), input));
				expect(sentence, `step ${step}: ${who} ${name} (${code}) on ${row.kind}`).toBe(can[name].why);
			}
			// What frees the document again is done more often, so that the history goes on.
			const rare = [
				'removePlace',
				'changeState',
				'handOverLock',
				'downloadDocument',
				'makePass',
				'discardSide'
			];
			const archived = row.state === 'archived' && yes.includes('changeState');
			const name = archived
				? 'changeState'
				: one(yes.filter((n) => chance() < (row.lock && n === 'handIn' ? 1 : rare.includes(n) ? 0.2 : 0.7)));
			// Under a lock a document goes back to work in progress, and to no other state.
			if (name === 'changeState' && row.lock && !archived) continue;
			const input = name && (await inputOf(name, who));
			if (!input) continue;
			const fault = await world.act(who, act(name), input).then(
				() => null,
				(error: { sentence?: string }) => error.sentence ?? String(error)
			);
			if (fault) expect(fault, `step ${step}: ${who} may ${name}`).toMatch(asked);
			else done.set(name, (done.get(name) ?? 0) + 1);
			if (name === 'removePlace' && !fault) await world.act('ines', restorePlace, { place: id });
		}
		// A history in which nothing happened would prove nothing.
		expect([...done.keys()].length).toBeGreaterThan(6);
	});
});
