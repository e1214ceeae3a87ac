import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneStep } from '../../src/lib/core/releases/route';
import { differences } from '../../src/lib/core/releases';
import { addDocument } from '../../src/lib/server/documents/acts';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import {
	addToRelease,
	cancelRelease,
	changeRelease,
	orderDocuments
} from '../../src/lib/server/releases/acts';
import { buildAnother, buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { takeReleasePackage } from '../../src/lib/server/releases/acts-package';
import { releaseView } from '../../src/lib/server/releases/views';
import { passView } from '../../src/lib/server/releases/views-pass';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

async function add(number: string, title: string): Promise<string> {
	const upload = await world.send('oke', number);
	return (await world.act('oke', addDocument, { folder: world.folder, upload, number, title })).id;
}
const see = (number: number, who = 'ines') => world.read(who, releaseView, { project: 'VFT', number });
const listed = async (number: number) =>
	(await see(number)).items.map(({ heading, title }) => (heading ? `${heading}: ${title}` : title));

describe('the documents of a release', () => {
	it('are listed as it arranges them, wherever it is read, and approval is asked again', async () => {
		const [deck, hinge, report] = [
			await add('VFT-MW-LS-00-DR-0202', 'Deck'),
			await add('VFT-MW-LS-00-DR-0201', 'Hinge'),
			await add('VFT-MW-LS-00-RP-0003', 'Bearings')
		];
		const made = await world.act('ines', buildRelease, {
			project: 'VFT',
			title: 'Linkspan',
			purpose: 'approval',
			recipients: [{ recipient: world.recipient }],
			route: oneStep(world.people.halla!.person.id),
			documents: [report]
		});
		await world.act('ines', addToRelease, { release: made.id, documents: [deck] });
		await world.act('ines', addToRelease, { release: made.id, documents: [hinge] });
		expect(await listed(made.number)).toEqual(['Bearings', 'Deck', 'Hinge']);
		await world.acceptAll(made);
		await world.act('ines', askApproval, { release: made.id });
		const before = await see(made.number, 'halla');

		const change = (arrangement: object) =>
			world.act('ines', changeRelease, { release: made.id, arrangement });
		await change({ order: 'number', group: 'type' });
		expect(await listed(made.number)).toEqual(['Drawing: Hinge', 'Drawing: Deck', 'Report: Bearings']);
		const after = await see(made.number);
		expect(differences(before.build!, after.build!)).toEqual([
			'Its documents are listed: as they were added became by number, in groups by type.'
		]);
		expect(after.release.state).toBe('building');
		expect(await refused(change({ order: 'number', group: 'serial' }))).toMatchObject({
			code: 'invalid',
			facts: { field: 'arrangement' }
		});
		// There and back it is what it was.
		await change({ order: 'added', group: null });
		expect((await see(made.number)).digest).toBe(before.digest);
		await change({ order: 'title', group: 'type' });

		// By hand: what is said is said once, and nothing is asked anew where it stands so already.
		const place = (...documents: string[]) =>
			world.act('ines', orderDocuments, { release: made.id, documents });
		await place(hinge, report, deck);
		expect(await listed(made.number)).toEqual(['Drawing: Hinge', 'Drawing: Deck', 'Report: Bearings']);
		await change({ order: 'placed', group: null });
		expect(await listed(made.number)).toEqual(['Hinge', 'Bearings', 'Deck']);
		await world.act('ines', askApproval, { release: made.id });
		const placed = await see(made.number, 'halla');
		await place(hinge, report, deck);
		expect((await see(made.number)).release.state).toBe('in-review');
		await place(deck, hinge, report);
		const moved = await see(made.number);
		expect(moved.release.state).toBe('building');
		expect(differences(placed.build!, moved.build!)).toEqual(['Its documents are listed in another order.']);
		// What was put in since the page was opened stands last, and what is not in it is passed over.
		await place(report, made.id, deck);
		expect(await listed(made.number)).toEqual(['Bearings', 'Deck', 'Hinge']);
		await change({ order: 'title', group: 'type' });

		await world.act('ines', askApproval, { release: made.id });
		await world.approve('halla', made);
		const { passes } = await world.act('ines', issueRelease, { release: made.id, number: made.number });
		const secret = passes[0]!.link.split('/pass/')[1]!;
		const got = await world.read(null, passView, { secret });
		expect(got.items.map(({ heading, title }) => `${heading}: ${title}`)).toEqual([
			'Drawing: Deck',
			'Drawing: Hinge',
			'Report: Bearings'
		]);
		const { files } = await world.act('ines', takeReleasePackage, { release: made.id });
		const list = files.find((one) => one.path === 'data/manifest.csv')!;
		const lines = Buffer.from(list.made!, 'base64').toString().split('\r\n');
		expect(lines.slice(1, 4).map((line) => line.split(',').at(-1))).toEqual(['Drawing', 'Drawing', 'Report']);
		// Another like it is listed the same way.
		const next = await world.act('ines', buildAnother, { release: made.id });
		expect((await see(next.number)).release.arrangement).toEqual({ order: 'title', group: 'type' });
		await world.act('ines', orderDocuments, { release: next.id, documents: [hinge, report, deck] });
		await world.act('ines', changeRelease, {
			release: next.id,
			arrangement: { order: 'placed', group: null }
		});
		await world.act('ines', cancelRelease, { release: next.id, reason: 'Begun anew' });
		const third = await world.act('ines', buildAnother, { release: next.id });
		expect(await listed(third.number)).toEqual(['Hinge', 'Bearings', 'Deck']);
	});
});
