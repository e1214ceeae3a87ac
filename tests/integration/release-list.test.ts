import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { letIn } from '../../src/lib/server/access/acts';
import { openPass } from '../../src/lib/server/passes/acts-open';
import { signVerdicts } from '../../src/lib/server/passes/acts-release';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { releasesListResponse } from '../../src/lib/server/releases/give-releases';
import { releaseTrail } from '../../src/lib/server/trail/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const build = (title: string, documents: string[]) =>
	world.act('ines', buildRelease, {
		...{
			project: 'VFT',
			title,
			purpose: 'approval',
			recipients: [{ recipient: world.recipient }],
			documents
		},
		route: oneStep(world.people.halla!.person.id)
	});
async function issued(title: string, documents: string[]) {
	const made = await build(title, documents);
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return { ...made, secret: passes[0]!.link.split('/pass/')[1]! };
}
const list = async (who: string, more: object = {}) => {
	const all = { project: 'VFT', text: '', state: '', purpose: '', left: '' } as const;
	const answer = await releasesListResponse(world.services, world.people[who]!, 'csv', { ...all, ...more });
	return (await answer.text()).split('\r\n').filter((line) => /^"?\d{4}/.test(line));
};

describe('releases taken away as a list', () => {
	it('are those that are looked at, narrowed as on screen, of what one may know', async () => {
		const first = await issued('Linkspan', [(await world.add()).id]);
		await build('Pile caps', [(await world.add()).id]);
		expect(await list('ines')).toHaveLength(2);
		const [one, ...none] = await list('ines', { text: 'linkspan', state: 'issued', left: 'waiting' });
		expect(none).toEqual([]);
		expect(one).toContain(`${String(first.number).padStart(4, '0')},Linkspan,For approval,issued,`);
		// Halla approves what was asked of her, and knows of no other; who approves none has an empty list.
		expect(await list('halla')).toEqual([one]);
		expect(await list('oke')).toEqual([]);
	});
});

describe('the trail of a release', () => {
	it('tells what happened to it, newest first, a page at a time; openings when they are asked for', async () => {
		const { id } = await world.add();
		const made = await issued('Towers', [id]);
		await world.act(null, openPass, { secret: made.secret });
		await world.act(null, signVerdicts, {
			...{ secret: made.secret, name: 'Maren Aldgate' },
			answers: [{ document: id, code: 'C', remark: 'Too low.' }]
		});
		const trail = async (who: string, more: object = {}) =>
			(await world.read(who, releaseTrail, { release: made.id, ...more })).events;
		const all = await trail('ines');
		const kinds = all.map((one) => one.kind);
		for (const kind of ['release.built', 'release.issued', 'verdict.given', 'document.returned'])
			expect(kinds).toContain(kind);
		expect(kinds.at(-1)).toBe('release.built');
		expect(kinds).not.toContain('pass.opened');
		expect((await trail('ines', { kind: 'all' })).map((one) => one.kind)).toContain('pass.opened');
		expect(all.every((one) => one.release === made.number)).toBe(true);
		const first = await trail('ines', { limit: 2 });
		const rest = await trail('ines', { before: first.at(-1)!.seq });
		expect([...first, ...rest]).toEqual(all);
	});

	it('tells who approves of what lies where they may look, and does not exist for others', async () => {
		const { id } = await world.add();
		const made = await issued('Hinges', [id]);
		await world.act(null, signVerdicts, {
			...{ secret: made.secret, name: 'Maren Aldgate' },
			answers: [{ document: id, code: 'A', remark: '' }]
		});
		const kinds = async (who: string) =>
			(await world.read(who, releaseTrail, { release: made.id })).events.map((one) => one.kind);
		expect(await kinds('halla')).toContain('release.issued');
		expect(await kinds('halla')).not.toContain('verdict.given');
		await world.act('oke', letIn, {
			place: world.folder,
			lines: [{ subject: { kind: 'person', id: world.people.halla!.person.id }, level: 'view' }]
		});
		expect(await kinds('halla')).toContain('verdict.given');
		expect(await refused(world.read('petra', releaseTrail, { release: made.id }))).toMatchObject({
			code: 'not-found'
		});
	});
});
