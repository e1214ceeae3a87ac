import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MEDIA_TYPE } from '../../src/lib/core/files/media';
import { oneStep } from '../../src/lib/core/releases/route';
import { addDocument } from '../../src/lib/server/documents/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { remarkInRelease } from '../../src/lib/server/releases/acts-remark';
import { releaseContent, releaseView } from '../../src/lib/server/releases/views';
import { releaseAnswers } from '../../src/lib/server/releases/views-answers';
import { remarks } from '../../src/lib/server/remarks/views';
import { settleRemark } from '../../src/lib/server/remarks/acts';
import { refused, TestWorld } from './world';

let world: TestWorld;
beforeAll(async () => void (world = await TestWorld.open()));
afterAll(() => world.close());

const idOf = (who: string) => world.people[who]!.person.id;
let serial = 8_000;
async function sheet() {
	const number = `VFT-MW-LS-00-DR-${++serial}`;
	const file = await PDFDocument.create();
	file.addPage([842, 595]);
	const upload = await world.send('oke', await file.save(), `${number}.pdf`);
	const { id } = await world.act('oke', addDocument, {
		folder: world.folder,
		upload,
		number,
		title: 'Sheet'
	});
	return { id, number };
}
async function asked(documents: string[]) {
	const made = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan',
		purpose: 'approval',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(idOf('petra')),
		documents
	});
	await world.acceptAll(made);
	await world.act('ines', askApproval, { release: made.id });
	return made;
}
const look = (who: string, release: string, document: string) =>
	world.read(who, releaseContent, { release, document });
const say = (who: string, release: string, document: string, more: object = {}) =>
	world.act(who, remarkInRelease, { release, document, text: 'The bearing is not said.', ...more });

describe('who decides on a release', () => {
	it('remarks on a document from within it, at its place, also where they may not look at it', async () => {
		const [about, other] = [await sheet(), await sheet()];
		const made = await asked([about.id]);
		expect(await refused(world.read('petra', documentView, { document: about.id }))).toMatchObject({
			code: 'not-found'
		});
		const place = { page: 1, x: 120, y: 80.5 };
		const first = await say('petra', made.id, about.id, { at: place });
		await say('petra', made.id, about.id, { text: 'And the scale.' });
		const seen = await look('petra', made.id, about.id);
		expect(seen).toMatchObject({ mediaType: MEDIA_TYPE.pdf, mayView: false });
		expect(seen.remarks).toMatchObject([
			{ number: 1, by: world.people.petra!.person.name, place, settled: false },
			{ number: 2, text: 'And the scale.', place: null, settled: false }
		]);
		// Its department has it at the document, where it stands; the release is told that it is open.
		const { remarks: rows } = await world.read('oke', remarks, { document: about.id });
		expect(rows[0]).toMatchObject({ id: first.id, anchor: { on: 'place', ...place }, label: 'P01.1' });
		const { items } = await world.read('ines', releaseView, { project: 'VFT', number: made.number });
		expect(items[0]!.checks.find((one) => one.name === 'settled')).toMatchObject({
			result: 'look',
			remedy: 'settle-remarks'
		});
		await world.act('oke', settleRemark, { document: about.id, remark: 1, note: 'Said in note 4.' });
		expect((await look('petra', made.id, about.id)).remarks[0]!.settled).toBe(true);
		// Neither of another document, nor by somebody whom the route does not name.
		expect(await refused(say('petra', made.id, other.id))).toMatchObject({ code: 'not-found' });
		expect(await refused(say('rhosyn', made.id, about.id))).toMatchObject({ code: 'not-found' });
	});

	it('places it on sheets only, and says nothing any more once it is out', async () => {
		const text = await world.add();
		const made = await asked([text.id]);
		const place = { page: 1, x: 1, y: 1 };
		expect(await refused(say('petra', made.id, text.id, { at: place }))).toMatchObject({
			code: 'invalid',
			facts: { field: 'at' }
		});
		const { number } = await say('petra', made.id, text.id);
		await world.act('oke', settleRemark, { document: text.id, remark: number });
		await world.approve('petra', made);
		await world.act('ines', issueRelease, { release: made.id, number: made.number });
		expect(await refused(say('petra', made.id, text.id))).toMatchObject({ code: 'conflict' });
		// What was said inside is none of the client's answers.
		expect(JSON.stringify(await world.read('ines', releaseAnswers, { release: made.id }))).not.toContain(
			'bearing'
		);
	});
});
