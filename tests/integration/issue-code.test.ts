import { createOTP } from '@better-auth/utils/otp';
import { symmetricEncrypt } from 'better-auth/crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { person, release, twoFactor, usedCode } from '../../src/lib/server/platform/db/schema';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { releaseView } from '../../src/lib/server/releases/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());
// The same half minute may stand for the next test, too.
beforeEach(async () => void (await world.db.delete(usedCode)));

const SECRET = 'a secret that an authenticator keeps';
/** What an authenticator shows; one half minute `on`, it is taken too (RFC 6238). */
const codeAt = (on = 0) => createOTP(SECRET).hotp(Math.floor(Date.now() / 30_000) + on);

async function setUp(who: string) {
	const { id } = world.people[who]!.person;
	const secret = await symmetricEncrypt({ key: world.config.secret, data: SECRET });
	await world.db.insert(twoFactor).values({ id: `two-${who}`, userId: id, secret, backupCodes: '' });
	await world.db.update(person).set({ twoFactorEnabled: true }).where(eq(person.id, id));
}
async function approved() {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people.halla!.person.id),
		documents: [(await world.add()).id]
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	return made;
}
const issue = (made: { id: string }, more: object) =>
	world.act('ines', issueRelease, { release: made.id, ...more });
const stateOf = async (made: { id: string }) =>
	(await world.db.select().from(release).where(eq(release.id, made.id)))[0]!.state;

describe('where the project asks for a code of two-step sign-in to issue (T11)', () => {
	it('who has none is told before they choose it and before they press it', async () => {
		const needs = { project: 'VFT', issueNeeds: 'code' };
		expect((await world.act('ines', changeSettings, { ...needs, trial: true })).effects).toEqual([
			'1 controller issues nothing until two-step sign-in is set up: Ines Maddock.'
		]);
		await world.act('ines', changeSettings, needs);
		const made = await approved();
		const { can } = await world.read('ines', releaseView, { project: 'VFT', number: made.number });
		expect(can.issueRelease.why).toMatch(/Set it up on your own page/);
		expect(await refused(issue(made, { timeCode: '123456' }))).toMatchObject({
			code: 'conflict',
			sentence: can.issueRelease.why
		});
	});

	it('the code issues it, and a typed number does not; each code is good for once', async () => {
		await setUp('ines');
		const [one, another] = [await approved(), await approved()];
		const view = await world.read('ines', releaseView, { project: 'VFT', number: one.number });
		expect(view).toMatchObject({ issueNeeds: 'code', can: { issueRelease: { may: true } } });
		const wrong = { code: 'invalid', facts: { field: 'timeCode' } };
		expect(await refused(issue(one, { number: one.number }))).toMatchObject(wrong);
		const right = await codeAt();
		const off = String((Number(right) + 1) % 1_000_000).padStart(6, '0');
		expect(await refused(issue(one, { timeCode: off }))).toMatchObject(wrong);
		expect(await stateOf(one)).toBe('approved');
		await issue(one, { timeCode: right });
		expect(await stateOf(one)).toBe('issued');
		expect(await refused(issue(another, { timeCode: right }))).toMatchObject(wrong);
		expect(await stateOf(another)).toBe('approved');
		await issue(another, { timeCode: await codeAt(1) });
	});

	it('what was begun before the project asked for it issues nothing without one', async () => {
		const made = await approved();
		const asking = (issueNeeds: string) => world.act('ines', changeSettings, { project: 'VFT', issueNeeds });
		await asking('number');
		// Between the preparation, which writes cover notes, and the issue itself.
		const { inspector } = world.services;
		const write = inspector.coverNotes.bind(inspector);
		inspector.coverNotes = async (...notes) => {
			await asking('code');
			return write(...notes);
		};
		const begun = refused(issue(made, { number: made.number }));
		expect(await begun).toMatchObject({ code: 'invalid', facts: { field: 'timeCode' } });
		inspector.coverNotes = write;
		expect(await stateOf(made)).toBe('approved');
	});

	it('what is refused for another reason does not use it up; guessing is limited', async () => {
		const made = await approved();
		const timeCode = await codeAt();
		const passwords = [{ recipient: world.recipient, password: 'slack water 0540' }];
		expect(await refused(issue(made, { timeCode, passwords }))).toMatchObject({
			facts: { field: 'passwords' }
		});
		await issue(made, { timeCode });
		const next = await approved();
		const off = async () => String((Number(await codeAt()) + 7) % 1_000_000).padStart(6, '0');
		const told: string[] = [];
		for (let i = 0; i < 12; i++) told.push((await refused(issue(next, { timeCode: await off() }))).code);
		expect(told.at(-1)).toBe('too-many');
		expect(await refused(issue(next, { timeCode: await codeAt() }))).toMatchObject({ code: 'too-many' });
	});
});
