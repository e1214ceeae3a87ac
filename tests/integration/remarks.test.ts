import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mentionText } from '../../src/lib/core/remarks/remarks';
import { lastingPosition, passagesIn } from '../../src/lib/core/text/passages';
import { fragmentOf, readText, rewriteText } from '../../src/lib/core/text/shared';
import { letIn } from '../../src/lib/server/access/acts';
import { freezePlace, thawPlace } from '../../src/lib/server/access/acts-standing';
import { takeLock } from '../../src/lib/server/locks/acts';
import { addLiveText } from '../../src/lib/server/live/acts-texts';
import {
	addRemark,
	answerRemark,
	assignRemark,
	reopenRemark,
	settleRemark,
	settleRemarks
} from '../../src/lib/server/remarks/acts';
import { notice } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { mentionable, remarks, remarksWithin } from '../../src/lib/server/remarks/views';
import { EditorState } from 'prosemirror-state';
import { initProseMirrorDoc } from 'y-prosemirror';
import { textSchema } from '../../src/lib/core/text/schema';
import { refused, TestWorld } from './world';

let world: TestWorld;
const idOf = (who: string) => world.people[who]!.person.id;
const told = async (who: string) =>
	(
		await world.db
			.select()
			.from(notice)
			.where(eq(notice.personId, idOf(who)))
	).map((n) => n.sentence);
const on = async (document: string, who = 'oke') => (await world.read(who, remarks, { document })).remarks;

beforeAll(async () => {
	world = await TestWorld.open();
	await world.act('oke', letIn, {
		place: world.folder,
		lines: [
			{ subject: { kind: 'person', id: idOf('halla') }, level: 'remark' },
			{ subject: { kind: 'person', id: idOf('petra') }, level: 'view' }
		]
	});
});
afterAll(() => world.close());

describe('what can be done with a remark is told as the acts answer', () => {
	it('to whoever made it, works there or only looks, while it is free, in somebody’s hand, frozen and settled', async () => {
		const { id } = await world.add();
		await world.act('halla', addRemark, { document: id, anchor: { on: 'whole' }, text: 'Scale missing.' });
		const inputs = {
			answerRemark: { text: 'We see.' },
			settleRemark: { note: 'Done.' },
			reopenRemark: {},
			assignRemark: { assign: { kind: 'person', id: idOf('oke') } }
		};
		const acts = { answerRemark, settleRemark, reopenRemark, assignRemark };
		const seen = { yes: 0, no: 0 };
		const tryAll = async (where: string) => {
			for (const who of ['petra', 'halla', 'rhosyn', 'oke', 'ines'])
				for (const name of ['answerRemark', 'assignRemark', 'settleRemark', 'reopenRemark'] as const) {
					const [row] = await on(id, who);
					const { may, why } = row!.can[name];
					seen[may ? 'yes' : 'no']++;
					const doing = world.act(who, acts[name] as never, { document: id, remark: 1, ...inputs[name] });
					if (may) await doing;
					else expect((await refused(doing)).sentence, `${where}: ${who} ${name}`).toBe(why);
				}
		};
		await tryAll('free');
		await world.act('oke', takeLock, { document: id, purpose: 'hinge' });
		expect((await on(id, 'rhosyn'))[0]!.can.settleRemark).toMatchObject({
			may: false,
			why: expect.stringContaining('somebody with Work here') as string
		});
		await tryAll('in hand');
		await world.act('ines', freezePlace, { place: world.folder, reason: 'tried' });
		await tryAll('frozen');
		await world.act('ines', thawPlace, { place: world.folder });
		expect(seen.yes).toBeGreaterThan(15);
		expect(seen.no).toBeGreaterThan(15);
	});
});

describe('remarks', () => {
	it('are numbered on their document, answered, settled and opened again', async () => {
		const { id } = await world.add();
		await world.act('halla', addRemark, { document: id, anchor: { on: 'whole' }, text: 'Scale missing.' });
		await world.act('halla', addRemark, {
			document: id,
			anchor: { on: 'place', page: 1, x: 120.5, y: 40 },
			text: 'Who moves the duct?'
		});
		await world.revise(id);
		await world.act('rhosyn', answerRemark, { document: id, remark: 2, text: 'We do.' });
		await world.act('oke', settleRemark, { document: id, remark: 2, note: 'Moved by 200.' });
		expect(await on(id, 'petra')).toMatchObject([
			{
				number: 1,
				by: 'Halla Brandt',
				from: 'AR',
				label: 'P01.1',
				settled: null,
				can: { settleRemark: { may: false } }
			},
			{
				number: 2,
				anchor: { on: 'place', page: 1, x: 120.5, y: 40 },
				answers: [{ by: 'Rhosyn Hale', text: 'We do.' }],
				settled: { by: 'Oke Lindvar', note: 'Moved by 200.' }
			}
		]);
		expect(await refused(world.act('oke', settleRemark, { document: id, remark: 2 }))).toMatchObject({
			code: 'conflict'
		});
		await world.act('halla', reopenRemark, { document: id, remark: 2 });
		expect((await on(id))[1]!.settled).toBeNull();
		expect(await told('halla')).toEqual(
			expect.arrayContaining([
				expect.stringContaining('answers remark 2'),
				expect.stringContaining('settled remark 2')
			])
		);
	});

	it('need Remark, and settling is for those it concerns', async () => {
		const { id } = await world.add();
		const whole = { document: id, anchor: { on: 'whole' }, text: 'x' };
		expect(await refused(world.act('petra', addRemark, whole))).toMatchObject({ code: 'needs-level' });
		expect(await refused(world.act('edda', addRemark, whole))).toMatchObject({ code: 'not-found' });
		await world.act('rhosyn', addRemark, whole);
		expect(await refused(world.act('halla', settleRemark, { document: id, remark: 1 }))).toMatchObject({
			code: 'needs-level'
		});
		await world.act('oke', assignRemark, {
			document: id,
			remark: 1,
			assign: { kind: 'person', id: idOf('halla') },
			due: '2026-12-01'
		});
		expect((await on(id, 'halla'))[0]).toMatchObject({
			assigned: { name: 'Halla Brandt' },
			due: '2026-12-01'
		});
		await world.act('halla', settleRemark, { document: id, remark: 1 });
	});

	it('mention only who may look at the document', async () => {
		const { id } = await world.add();
		const mention = (kind: 'person' | 'department', to: string, name: string) =>
			world.act('halla', addRemark, {
				document: id,
				anchor: { on: 'whole' },
				text: `${mentionText({ kind, id: to, name })}, please look.`
			});
		await mention('person', idOf('petra'), 'Petra Quill');
		expect(await told('petra')).toContainEqual(expect.stringContaining('mentions you in remark 1'));
		expect(await refused(mention('person', idOf('edda'), 'Edda Norrow'))).toMatchObject({
			code: 'invalid',
			sentence: expect.stringContaining('cannot look')
		});
		await mention('department', world.departments.MW!, 'Marine works');
		expect(await told('rhosyn')).toContainEqual(expect.stringContaining('Marine works, please look.'));
		expect(await told('edda')).toEqual([]);
		const offered = await world.read('halla', mentionable, { document: id });
		expect(offered.people.map((p) => p.name)).not.toContain('Edda Norrow');
		expect(offered.departments.map((d) => d.name)).toEqual(['Architecture', 'Marine works']);
	});

	it('stand on the words of a live text, through everything that is written around them', async () => {
		const { id } = await world.act('oke', addLiveText, {
			folder: world.folder,
			number: 'VFT-MW-LS-00-SP-0900',
			title: 'Specification',
			text: {
				type: 'doc',
				content: [
					{ type: 'paragraph', content: [{ type: 'text', text: 'Concrete class C35/45 throughout.' }] }
				]
			}
		});
		const room = (await world.read('oke', documentView, { document: id })).room!.name;
		const { rooms } = world.services;
		const positions = await rooms.read(room, (doc) => {
			const { mapping } = initProseMirrorDoc(fragmentOf(doc), textSchema);
			return { from: lastingPosition(doc, 16, mapping), to: lastingPosition(doc, 22, mapping) };
		});
		// Somebody writes before the remark arrives.
		const write = (change: (state: EditorState) => EditorState['tr']) =>
			rooms.change(room, idOf('oke'), (doc) =>
				rewriteText(doc, change(EditorState.create({ doc: readText(doc) })).doc)
			);
		await write((state) => state.tr.insertText('All ', 1));
		await world.act('halla', addRemark, {
			document: id,
			anchor: { on: 'passage', ...positions },
			text: 'C40/50?'
		});
		const [row] = await on(id);
		expect(row).toMatchObject({ quote: 'C35/45', anchor: { on: 'passage' } });
		const mark = (row!.anchor as { mark: string }).mark;
		const words = () =>
			rooms.read(room, (doc) => {
				const text = readText(doc);
				const at = passagesIn(text).get(mark);
				return at ? text.textBetween(at.from, at.to) : null;
			});
		await write((state) => state.tr.split(5));
		expect(await words()).toBe('C35/45');
		const text = await rooms.read(room, (doc) => readText(doc));
		const at = passagesIn(text).get(mark)!;
		await write((state) => state.tr.delete(at.from, at.to));
		expect(await words()).toBeNull();
		expect((await on(id))[0]!.quote).toBe('C35/45');
	});

	it('of all departments are answered in one go, and found in folder and project', async () => {
		const { id } = await world.add();
		for (const [who, text] of [
			['halla', 'One'],
			['rhosyn', 'Two'],
			['oke', 'Three']
		] as const)
			await world.act(who, addRemark, { document: id, anchor: { on: 'version' }, text });
		const { settled } = await world.act('oke', settleRemarks, {
			document: id,
			lines: [
				{ remark: 1, note: 'Done.' },
				{ remark: 2, note: 'Done too.' },
				{ remark: 9, note: 'no such' }
			]
		});
		expect(settled).toBe(2);
		const within = async (who: string, more = {}) =>
			(await world.read(who, remarksWithin, { project: 'VFT', ...more })).remarks.filter(
				(r) => r.document === id
			);
		expect((await within('petra', { place: world.folder })).map((r) => r.text)).toEqual(['Three']);
		expect(await within('petra', { filter: 'settled' })).toHaveLength(2);
		expect(await within('edda', { filter: 'all' })).toEqual([]);
		await world.act('oke', assignRemark, {
			document: id,
			remark: 3,
			assign: { kind: 'department', id: world.departments.AR! }
		});
		expect(await within('halla', { filter: 'mine' })).toHaveLength(1);
		expect(await within('rhosyn', { filter: 'mine' })).toHaveLength(0);
	});
});
