import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letIn } from '../../src/lib/server/access/acts';
import {
	acceptInvitation,
	askRenewal,
	changePassword,
	makeToken,
	renewPassword
} from '../../src/lib/server/people/acts-account';
import {
	blockPerson,
	inviteAgain,
	moveInside,
	unblockPerson
} from '../../src/lib/server/people/acts-coming-in';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { makeAuth } from '../../src/lib/server/platform/auth/auth';
import { apiToken, member, session } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { people } from '../../src/lib/server/people/views';
import { timeCode } from '../time-code';
import { refused, TestWorld } from './world';

let world: TestWorld;
let auth: ReturnType<typeof makeAuth>;
beforeAll(async () => {
	world = await TestWorld.open();
	auth = makeAuth(world.config, world.services.database);
});
afterAll(() => world.close());

const HEADERS = () => new Headers({ origin: world.config.origin });
const secretIn = (body: string, way: 'invited' | 'renew') => new RegExp(`/${way}/(\\S+)`).exec(body)![1]!;
const lastLink = async (address: string, way: 'invited' | 'renew') =>
	secretIn((await world.mailsTo(address)).filter((body) => body.includes(`/${way}/`)).at(-1)!, way);
const idOf = async (email: string) =>
	(await world.read('ines', people, { project: 'VFT' })).members.find((m) => m.email === email)!.id;
const signIn = (email: string, password: string) => auth.signIn(email, password, '192.0.2.1', HEADERS());

/** Lets somebody new in at Linkspan and gives the mail they got. */
async function invite(email: string, more: object = {}): Promise<string> {
	await world.act('ines', letIn, {
		place: world.folder,
		lines: [{ subject: { email, name: 'Lior Vance', company: 'Tarn Steelwork' }, level: 'download', ...more }]
	});
	return (await world.mailsTo(email)).at(-1)!;
}
const accept = (secret: string, more: object = {}) =>
	world.act(null, acceptInvitation, { secret, password: 'slack water under the quay', ...more });

describe('an invitation', () => {
	it('names place, level, end and who, leads to the place, and lets one choose how one is called', async () => {
		const body = await invite('lior@tarnsteel.example', { until: '2027-03-31' });
		expect(body).toContain('Linkspan');
		expect(body).toContain('Ines Maddock');
		expect(body).toMatch(/download/i);
		expect(body).toMatch(/31 Mar|2027-03-31/);
		const { way } = await accept(secretIn(body, 'invited'), { name: 'Lior A. Vance' });
		expect(way).toBe(`/vft/place/${world.folder}`);
		expect((await world.read('ines', people, { project: 'VFT' })).members.map((m) => m.name)).toContain(
			'Lior A. Vance'
		);
		expect(await refused(accept(secretIn(body, 'invited')))).toMatchObject({ code: 'not-found' });
	});
	it('is sent again to who never came in, and the earlier one ends; not to who did', async () => {
		const first = secretIn(await invite('again@tarnsteel.example'), 'invited');
		const person = await idOf('again@tarnsteel.example');
		expect(await refused(world.act('oke', inviteAgain, { project: 'VFT', person }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('ines', inviteAgain, { project: 'VFT', person });
		expect(await refused(accept(first))).toMatchObject({ code: 'not-found' });
		await accept(await lastLink('again@tarnsteel.example', 'invited'));
		expect((await refused(world.act('ines', inviteAgain, { project: 'VFT', person }))).sentence).toContain(
			'has come in'
		);
	});
	it('that ended unused is offered again to who is “in the project already”', async () => {
		await invite('never@tarnsteel.example');
		const answer = await refused(
			world.act('ines', addPerson, {
				project: 'VFT',
				name: 'Never Came',
				email: 'never@tarnsteel.example'
			})
		);
		expect(JSON.stringify(answer)).toMatch(/again/i);
	});
	it('refuses a password that is the own address, or a common one', async () => {
		const secret = secretIn(await invite('plain@tarnsteel.example'), 'invited');
		expect((await refused(accept(secret, { password: 'plain@tarnsteel.example' }))).code).toBe('invalid');
		expect((await refused(accept(secret, { password: '123456789012' }))).code).toBe('invalid');
		expect((await refused(accept(secret, { password: 'short' }))).code).toBe('invalid');
		await accept(secret);
	});
});

describe('colleagues and people from outside', () => {
	it('a colleague is known by the domain, and comes inside', async () => {
		await world.act('ines', letIn, {
			place: world.folder,
			lines: [{ subject: { email: 'new@vennholm.example', name: 'New Colleague' }, level: 'view' }]
		});
		const [row] = await world.db
			.select()
			.from(member)
			.where(eq(member.personId, await idOf('new@vennholm.example')));
		expect(row!.outside).toBe(false);
		const outside = await world.db
			.select()
			.from(member)
			.where(eq(member.personId, await idOf('lior@tarnsteel.example')));
		expect(outside[0]!.outside).toBe(true);
	});
	it('somebody from outside is moved inside once, and leaves their company', async () => {
		const person = await idOf('lior@tarnsteel.example');
		await world.act('ines', moveInside, { project: 'VFT', person });
		expect(await refused(world.act('ines', moveInside, { project: 'VFT', person }))).toMatchObject({
			code: 'conflict'
		});
		const seen = (await world.read('ines', people, { project: 'VFT' })).members.find((m) => m.id === person);
		expect(JSON.stringify(seen)).not.toContain('Tarn Steelwork');
	});
	it('a block keeps out for a time, and takes nothing away', async () => {
		const person = world.people.rhosyn!.person.id;
		const { id: document } = await world.add();
		const look = () => world.read('rhosyn', documentView, { document });
		await look();
		await world.act('ines', blockPerson, { project: 'VFT', person, reason: 'The laptop was lost.' });
		expect(await refused(look())).toMatchObject({ code: 'not-found' });
		expect(
			await refused(world.act('ines', blockPerson, { project: 'VFT', person, reason: 'again' }))
		).toMatchObject({ code: 'conflict' });
		await world.act('ines', unblockPerson, { project: 'VFT', person });
		await look();
		expect(
			await refused(
				world.act('ines', blockPerson, { project: 'VFT', person: world.people.ines!.person.id, reason: 'r' })
			)
		).toMatchObject({ code: 'conflict' });
	});
});

describe('a forgotten password', () => {
	const email = 'again@tarnsteel.example';
	it('is renewed by a link that works once and ends the sessions', async () => {
		await signIn(email, 'slack water under the quay');
		const sessions = async () =>
			(
				await world.db
					.select()
					.from(session)
					.where(eq(session.userId, await idOf(email)))
			).length;
		expect(await sessions()).toBe(1);
		await world.act(null, askRenewal, { email });
		const secret = await lastLink(email, 'renew');
		await world.act(null, renewPassword, { secret, password: 'another tide entirely' });
		expect(await sessions()).toBe(0);
		expect((await refused(signIn(email, 'slack water under the quay'))).code).toBe('invalid');
		await signIn(email, 'another tide entirely');
		expect(
			await refused(world.act(null, renewPassword, { secret, password: 'a third tide altogether' }))
		).toMatchObject({ code: 'not-found' });
	});
	it('has a link for an hour, and only the newest one works', async () => {
		await world.act(null, askRenewal, { email });
		const first = await lastLink(email, 'renew');
		await world.act(null, askRenewal, { email });
		const second = await lastLink(email, 'renew');
		const set = (secret: string, at?: Date) =>
			world.act(null, renewPassword, { secret, password: 'a third tide altogether' }, at);
		expect(await refused(set(first))).toMatchObject({ code: 'not-found' });
		expect(await refused(set(second, new Date(Date.now() + 61 * 60_000)))).toMatchObject({
			code: 'not-found'
		});
		await set(second);
	});
	it('is answered alike for addresses that nobody has, and an invitation is no such link', async () => {
		expect(await world.act(null, askRenewal, { email: 'nobody@nowhere.example' })).toEqual({ minutes: 60 });
		expect(await world.mailsTo('nobody@nowhere.example')).toEqual([]);
		const secret = secretIn(await invite('other@tarnsteel.example'), 'invited');
		expect(
			await refused(world.act(null, renewPassword, { secret, password: 'a third tide altogether' }))
		).toMatchObject({ code: 'not-found' });
	});
});

describe('a time code', () => {
	it('works once, also within its half minute', async () => {
		const email = 'plain@tarnsteel.example';
		const cookieOf = (cookies: string[]) =>
			new Headers({ origin: world.config.origin, cookie: cookies.map((c) => c.split(';')[0]).join('; ') });
		const password = 'slack water under the quay';
		const first = cookieOf((await signIn(email, password)).cookies);
		const { uri } = await auth.beginTwoStep(password, first);
		const code = timeCode(new URL(uri).searchParams.get('secret')!);
		await auth.signInCode(code, '192.0.2.1', first);
		const half = await signIn(email, password);
		expect(half.asksCode).toBe(true);
		expect((await refused(auth.signInCode(code, '192.0.2.1', cookieOf(half.cookies)))).sentence).toContain(
			'has been used'
		);
	});
});

describe('sessions and tokens', () => {
	const email = 'again@tarnsteel.example';
	it('a session ends a month after it began, however much it is used', async () => {
		const { cookies } = await signIn(email, 'a third tide altogether');
		const headers = new Headers({ cookie: cookies.map((c) => c.split(';')[0]).join('; ') });
		expect(await auth.actor(headers)).toMatchObject({ person: { email } });
		await world.db
			.update(session)
			.set({ createdAt: new Date(Date.now() - 31 * 86_400_000) })
			.where(eq(session.userId, await idOf(email)));
		expect(await auth.actor(headers)).toBeNull();
	});
	it('a token has an end, and ends with the password when that is wished', async () => {
		world.people.again = { person: { id: await idOf(email), name: 'Lior Vance', email }, via: 'session' };
		const make = (more: object) => world.act('again', makeToken, { name: 'script', ...more });
		const [stays, ends, short] = [
			await make({}),
			await make({ endsWithPassword: true }),
			await make({ days: 1 })
		];
		expect(await auth.byToken(ends.secret)).toMatchObject({ via: 'token' });
		await world.act('again', changePassword, {
			current: 'a third tide altogether',
			password: 'and a fourth one too'
		});
		expect(await refused(auth.byToken(ends.secret))).toMatchObject({ code: 'needs-sign-in' });
		expect(await auth.byToken(stays.secret)).toMatchObject({ via: 'token' });
		await world.db
			.update(apiToken)
			.set({ endsAt: new Date(Date.now() - 1) })
			.where(eq(apiToken.id, short.id));
		expect(await refused(auth.byToken(short.secret))).toMatchObject({ code: 'needs-sign-in' });
		expect(await refused(make({ days: 1_000 }))).toMatchObject({ code: 'invalid' });
	});
	it('guessing the password within a session is limited', async () => {
		const guess = () =>
			world.act('again', changePassword, { current: 'a wrong one', password: 'and a fifth one too' });
		for (let i = 0; i < 10; i++) expect(await refused(guess())).toMatchObject({ code: 'invalid' });
		expect(await refused(guess())).toMatchObject({ code: 'too-many' });
	});
});
