import { oneStep } from '../../src/lib/core/releases/route';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dayOf, plusDays } from '../../src/lib/core/time/days';
import { addRecipient } from '../../src/lib/server/people/acts';
import { confirmReceipt, signVerdicts } from '../../src/lib/server/passes/acts-release';
import { pass, release } from '../../src/lib/server/platform/db/schema';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { issueRelease, withdrawPass } from '../../src/lib/server/releases/acts-issue';
import { remindRecipients } from '../../src/lib/server/releases/reminders';
import { passView } from '../../src/lib/server/releases/views-pass';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => {
	world = await TestWorld.open();
	await world.act('ines', changeSettings, {
		project: 'VFT',
		workCalendar: { weekend: [], holidays: [] },
		reminders: { receipt: [2], before: [1], after: [1] }
	});
});
afterAll(() => world.close());

const DAY = 24 * 3_600_000;
const today = dayOf(new Date(), 'UTC');
/** So many days from now. */
const later = (days: number) => new Date(Date.now() + days * DAY);
const run = (days: number) => remindRecipients(world.services, later(days));

/** Issues a release to somebody of their own, and gives its pass. */
async function issued(who: string, replyBy: string | null) {
	const email = `${who}@harbour-trust.example`;
	const { id: recipient } = await world.act('ines', addRecipient, {
		project: 'VFT',
		name: who,
		company: 'Vennholm Harbour Trust',
		email
	});
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: `For ${who}`,
		purpose: 'approval',
		recipients: [{ recipient }],
		route: oneStep(world.people.halla!.person.id),
		replyBy,
		documents: [(await world.add()).id]
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	await world.approve('halla', made);
	const done = await world.act('ines', issueRelease, { release: made.id, number: made.number });
	return {
		id: made.id,
		recipient,
		secret: done.passes[0]!.link.split('/pass/')[1]!,
		link: done.passes[0]!.link,
		reminders: async () => (await world.mailsTo(email)).slice(1)
	};
}

describe('whoever got a release and does not answer', () => {
	it('is reminded of receipt and reply by the rhythm, once a day whoever asks, and never after the answer', async () => {
		const one = await issued('asta', plusDays(today, 5));
		await run(1);
		expect(await one.reminders()).toEqual([]);
		// Two servers at once, and once more: one mail.
		await Promise.all([run(2), remindRecipients(await world.beside(), later(2))]);
		await run(2);
		const [receipt, ...more] = await one.reminders();
		expect(more).toEqual([]);
		expect(receipt).toContain('receipt is not confirmed yet');
		expect(receipt).toContain(one.link);
		await run(4);
		expect((await one.reminders()).at(-1)).toContain('waits for your reply');
		await run(5);
		expect(await one.reminders()).toHaveLength(2);
		await run(6);
		expect((await one.reminders()).at(-1)).toContain('still waits for your reply');
		expect(await one.reminders()).toHaveLength(3);
	});

	it('whose pass cannot be read any more keeps no other from being reminded', async () => {
		const [broken, well] = [await issued('fara', null), await issued('gyda', null)];
		await world.db.update(pass).set({ sealedSecret: 'unreadable' }).where(eq(pass.releaseId, broken.id));
		await run(2);
		expect(await broken.reminders()).toEqual([]);
		expect(await well.reminders()).toHaveLength(1);
	});

	it('is left in peace once it is answered, withdrawn, or no longer current', async () => {
		const [answered, confirmed, withdrawn, superseded] = [
			await issued('bera', plusDays(today, 5)),
			await issued('cato', null),
			await issued('dita', null),
			await issued('eske', null)
		];
		const { items } = await world.read(null, passView, { secret: answered.secret });
		await world.act(null, confirmReceipt, { secret: answered.secret });
		await world.act(null, signVerdicts, {
			secret: answered.secret,
			name: 'Bera',
			answers: items.map((item) => ({ document: item.documentId, code: 'A' }))
		});
		await world.act(null, confirmReceipt, { secret: confirmed.secret });
		await world.act('ines', withdrawPass, { release: withdrawn.id, recipient: withdrawn.recipient });
		await world.db.update(release).set({ state: 'superseded' }).where(eq(release.id, superseded.id));
		for (const days of [2, 4, 6, 9]) await run(days);
		for (const one of [answered, confirmed, withdrawn, superseded])
			expect((await one.reminders()).filter((mail) => mail.includes('nobody reminds you'))).toEqual([]);
	});
});
