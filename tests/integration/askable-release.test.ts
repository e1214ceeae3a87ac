import { oneStep } from '../../src/lib/core/releases/route';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CONTRACTS } from '../../src/lib/contract';
import { RELEASE_ACTS, RELEASE_RULES, type ReleaseAct } from '../../src/lib/core/releases/may';
import { PLACE_ACTS, PLACE_RULES, type PlaceAct } from '../../src/lib/core/places/may';
import { letIn } from '../../src/lib/server/access/acts';
import { access } from '../../src/lib/server/access/views';
import { ACTS } from '../../src/lib/server/api/acts';
import { folder } from '../../src/lib/server/places/views-tree';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { releaseView } from '../../src/lib/server/releases/views';
import { readView } from '../../src/lib/server/platform/runner/run';
import { addRemark } from '../../src/lib/server/remarks/acts';
import { remarks } from '../../src/lib/server/remarks/views';
import { seeded } from '../seeded';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

const act = (name: string) => ACTS.find((one) => one.name === name)!;
/** Does it, and gives the sentence of a refusal. */
const fault = (who: string, name: string, input: Record<string, unknown>) =>
	world.act(who, act(name), input).then(
		() => null,
		(error: { sentence?: string }) => error.sentence ?? String(error)
	);

it('every act of a release and of a place that is asked has its rule, and every rule its act', () => {
	for (const [rules, names, key] of [
		[RELEASE_RULES, RELEASE_ACTS, 'applies'],
		[PLACE_RULES, PLACE_ACTS, 'asks']
	] as const)
		for (const name of names) {
			const { at } = CONTRACTS.find((one) => one.name === name)!;
			expect((at as Record<string, unknown>)[key], name).toBe((rules as Record<string, unknown>)[name]);
		}
	const ruled = CONTRACTS.filter(({ at }) => at.kind === 'release' && at.applies).map(({ name }) => name);
	expect(ruled.sort()).toEqual([...RELEASE_ACTS].sort());
	const asked = CONTRACTS.filter(({ at }) => at.kind === 'place' && at.asks).map(({ name }) => name);
	expect(asked.sort()).toEqual([...PLACE_ACTS].sort());
});

describe('what can be done with a release is told by the same rule that the runner asks', () => {
	it('through any history: what says no is refused with that sentence, what says yes is done', async () => {
		const chance = seeded('the history of a release');
		const one = <T>(of: readonly T[]): T => of[Math.floor(chance() * of.length)]!;
		const idOf = (who: string) => world.people[who]!.person.id;
		const spare = await world.add('oke', 'a spare');
		const done = new Map<string, number>();
		let serial = 0;
		// Two of them; more when chance had nothing happen in these, which would prove nothing.
		for (let round = 0; round < 2 || (done.size < 2 && round < 10); round++) {
			const first = await world.add('oke', `sheet ${++serial}`);
			const made = await world.act('ines', buildRelease, {
				project: 'VFT',
				title: `Round ${round}`,
				purpose: 'approval',
				recipients: [{ recipient: world.recipient }],
				route: oneStep(idOf('halla')),
				documents: [first.id]
			});
			const see = (who: string) =>
				world.read(who, releaseView, { project: 'VFT', number: made.number }).catch(() => null);
			const inputOf = async (name: ReleaseAct): Promise<Record<string, unknown>> => {
				const release = made.id;
				switch (name) {
					case 'approveRelease':
						return { release, digest: (await see('ines'))?.digest ?? 'a'.repeat(64) };
					case 'sendBack':
					case 'cancelRelease':
						return { release, reason: 'tried' };
					case 'issueRelease':
						return { release, number: made.number };
					case 'withdrawPass':
						return { release, recipient: world.recipient };
					case 'letColleagueIn':
						return { release, colleague: first.id };
					case 'refuseColleague':
						return { release, colleague: first.id, reason: 'tried' };
					case 'consolidateVerdicts':
						return { release, document: first.id, code: 'B', reason: 'tried' };
					case 'remarkInRelease':
						return { release, document: first.id, text: 'tried' };
					case 'changeRelease':
						return { release, title: `Round ${round}, ${++serial}` };
					case 'acceptChecks':
						return { release, checks: [{ document: first.id, check: 'newest' }], reason: 'tried' };
					case 'addListed':
						return { release, list: spare.number };
					case 'addToRelease':
						return { release, documents: [spare.id] };
					case 'orderDocuments':
						return { release, documents: chance() < 0.5 ? [spare.id, first.id] : [first.id] };
					case 'leaveOut':
					case 'addReferences':
					case 'takeNewest':
						return { release, document: name === 'leaveOut' ? spare.id : first.id };
					default:
						return { release };
				}
			};
			for (let step = 0; step < 16; step++) {
				const who = one(['ines', 'ines', 'halla', 'petra']);
				const view = await see(who);
				if (!view) {
					const input = await inputOf(one(RELEASE_ACTS));
					expect((await refused(world.act(who, act(one(RELEASE_ACTS)), input))).code).toMatch(
						/not-found|invalid/
					);
					continue;
				}
				const yes: ReleaseAct[] = [];
				for (const name of RELEASE_ACTS) {
					if (view.can[name].may) yes.push(name);
					else
						expect(await fault(who, name, await inputOf(name)), `step ${step}: ${who} ${name}`).toBe(
							view.can[name].why
						);
				}
				// What leads on is done more often than what leads back.
				const rare = [
					'cancelRelease',
					'withdrawPass',
					'sendBack',
					'changeRelease',
					'addToRelease',
					'orderDocuments',
					'leaveOut'
				];
				const name = one(yes.filter((n) => chance() < (rare.includes(n) ? 0.15 : 0.8)));
				if (!name) continue;
				const said = await fault(who, name, await inputOf(name));
				// What an answer of yes does not speak of: what is given to the act, and what its checks find.
				if (said)
					expect(said, `step ${step}: ${who} may ${name}`).toMatch(
						/nothing to look at|in this release|stop the release|to look at|Nothing was issued|approved already|their verdict stands|such a colleague/
					);
				else done.set(name, (done.get(name) ?? 0) + 1);
			}
		}
		expect(done.size).toBeGreaterThan(1);
	});
});

describe('what can be done at a place is told by the same rule that the runner asks', () => {
	it('by everybody, open, closed, frozen and thawed', async () => {
		for (const [who, level] of [
			['halla', 'organise'],
			['petra', 'view']
		] as const)
			await world.act('oke', letIn, {
				place: world.folder,
				lines: [{ subject: { kind: 'person', id: world.people[who]!.person.id }, level }]
			});
		let serial = 0;
		const inputOf = (name: PlaceAct): Record<string, unknown> | null => {
			const place = world.folder;
			switch (name) {
				case 'makeFolder':
					return { parent: place, name: `Folder ${++serial}` };
				case 'renameFolder':
					return { folder: place, name: `Linkspan ${++serial}` };
				case 'moveFolder':
					return { folder: place, to: world.shelf };
				case 'freezePlace':
					return { place, reason: 'tried' };
				case 'removePlace':
					return { place, reason: 'tried' };
				case 'markSensitive':
					return { place, sensitive: ++serial % 2 === 0 };
				case 'closePlace':
				case 'openPlace':
				case 'thawPlace':
					return { place };
				// Their answers are no more than the level's, which the test of all levels tries.
				default:
					return null;
			}
		};
		const tried = { yes: 0, no: 0 };
		for (const step of ['open', 'freezePlace', 'closePlace', 'thawPlace', 'openPlace'] as const) {
			if (step !== 'open') await world.act('oke', act(step), inputOf(step)!);
			for (const who of ['oke', 'rhosyn', 'halla', 'petra', 'ines'])
				for (const name of PLACE_ACTS) {
					const { can } = await world.read(who, folder, { place: world.folder }).catch(() => ({ can: null }));
					if (!can) continue;
					const told = await world.read(who, access, { place: world.folder });
					expect(told.can[name], `${step}: ${who} ${name}`).toEqual(can[name]);
					const input = inputOf(name);
					if (!input) continue;
					// What changes what stands here is done once, between the steps.
					if (can[name].may && /Place$/.test(name)) continue;
					const said = await fault(who, name, input);
					if (can[name].may) {
						tried.yes++;
						// Where it goes may say no of its own.
						if (said)
							expect(said, `${step}: ${who} may ${name}`).toMatch(/already|needs|within|is not there/i);
					} else {
						tried.no++;
						expect(said, `${step}: ${who} ${name}`).toBe(can[name].why);
					}
				}
		}
		expect(tried.yes).toBeGreaterThan(10);
		expect(tried.no).toBeGreaterThan(10);
	});
});

it('who looks as somebody else is told, as the acts answer, that nothing can be changed', async () => {
	const { id } = await world.add();
	await world.act('oke', addRemark, { document: id, anchor: { on: 'whole' }, text: 'Scale missing.' });
	const looking = {
		...world.people.ines!,
		trying: { projectId: world.project, personId: world.people.oke!.person.id }
	};
	const { remarks: rows } = await readView(world.services, remarks, looking, { document: id });
	const { can } = await readView(world.services, folder, looking, { place: world.folder });
	for (const answer of [...Object.values(rows[0]!.can), ...Object.values(can)])
		expect(answer).toEqual({
			may: false,
			why: expect.stringContaining('looking as somebody else') as string
		});
});
