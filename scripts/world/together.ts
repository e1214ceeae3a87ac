import type { Node } from 'prosemirror-model';
import { EditorState } from 'prosemirror-state';
import { mentionText } from '../../src/lib/core/remarks/remarks';
import { textSchema } from '../../src/lib/core/text/schema';
import { readText, rewriteText } from '../../src/lib/core/text/shared';
import { asSuggestion, suggestionId } from '../../src/lib/core/text/suggestions';
import { handInLive } from '../../src/lib/server/live/acts';
import { addLiveText } from '../../src/lib/server/live/acts-texts';
import { addRemark, answerRemark, assignRemark, settleRemark } from '../../src/lib/server/remarks/acts';
import { documentView } from '../../src/lib/server/documents/views';
import { readView } from '../../src/lib/server/platform/runner/run';
import type * as Y from 'yjs';
import { BEGINNINGS } from '../../src/lib/core/schedule/beginnings';
import type { Schedule } from '../../src/lib/core/schedule/column';
import { readSchedule, setCells } from '../../src/lib/core/schedule/shared';
import { giveLayer, workDrawingLive } from '../../src/lib/server/live/acts-drawings';
import { addLiveSchedule } from '../../src/lib/server/live/acts-schedules';
import { liveSchedule } from '../../src/lib/server/live/views';
import { DAY } from '../../src/lib/core/time/spans';
import { dayIn } from './days';
import type { Stage } from './stage';

const { nodes } = textSchema;
const words = (text: string, ...marks: string[]) =>
	textSchema.text(
		text,
		marks.map((m) => textSchema.mark(m))
	);
const p = (...content: (string | Node)[]) =>
	nodes.paragraph!.create(
		null,
		content.map((c) => (typeof c === 'string' ? words(c) : c))
	);
const h = (level: number, text: string) => nodes.heading!.create({ level }, words(text));
const list = (kind: 'bullet_list' | 'ordered_list', ...items: string[]) =>
	nodes[kind]!.create(
		null,
		items.map((item) => nodes.list_item!.create(null, p(item)))
	);
const table = (...rows: string[][]) =>
	nodes.table!.create(
		null,
		rows.map((cells, i) =>
			nodes.table_row!.create(
				null,
				cells.map((cell) => (i ? nodes.table_cell! : nodes.table_header!).create(null, p(cell)))
			)
		)
	);

/** What the linkspan's method statement says when it is begun. */
function methodStatement(drawing: { id: string; number: string }): Node {
	const link = nodes.document_link!.create({ document: drawing.id, number: drawing.number });
	return nodes.doc!.create(null, [
		h(1, 'Scope'),
		p(
			'This statement covers lifting in the linkspan deck and its first raising on the lifting towers, as shown on ',
			link,
			'.'
		),
		p(
			'It is read with the marine traffic plan. No work stands over water while a ferry is within the basin.'
		),
		h(1, 'Sequence'),
		list(
			'ordered_list',
			'Survey the bearing shelf and the pit wall; the deck is not shipped before both are signed.',
			'Bring the deck in on the barge at slack water, bow first.',
			'Hang the deck from both towers and release the barge at a falling tide.',
			'Fit the hinge pins from the shore side; record the gap at each.',
			'Raise the deck by 500 mm, hold for 30 minutes, read the camber at midspan.'
		),
		h(1, 'Limits'),
		table(
			['What', 'Most', 'Who reads it'],
			['Wind at 10 m', '9 m/s', 'Site team'],
			['Significant wave height', '0.4 m', 'Barge master'],
			['Difference between the towers', '25 mm', 'Marine works']
		),
		nodes.caption!.create({ of: 'table' }, words('Limits for the lift')),
		h(2, 'When a limit is reached'),
		p(
			'The lift stops where it is and the deck is ',
			words('not', 'strong'),
			' lowered before the reading is back below the limit for 15 minutes.'
		),
		h(1, 'Records'),
		list(
			'bullet_list',
			'Readings of both towers every 5 minutes',
			'Gap at each hinge pin, before and after',
			'Camber at midspan, raised and at rest'
		)
	]);
}

/** Where words stand in a text. */
function find(text: Node, said: string): { from: number; to: number } {
	let found: { from: number; to: number } | null = null;
	text.descendants((node, pos) => {
		const at = node.isText ? node.text!.indexOf(said) : -1;
		if (at >= 0 && !found) found = { from: pos + at, to: pos + at + said.length };
	});
	if (!found) throw new Error(`The text does not say “${said}”`);
	return found;
}

/** Piles of the linkspan as Marine works sets them out: two rows of fourteen, the last of each a raker. */
function piles(): (string | number | null)[][] {
	return Array.from({ length: 28 }, (_, i) => {
		const [row, at] = [i < 14 ? 0 : 1, i % 14];
		const driven = i < 19;
		return [
			`P-${String(i + 1).padStart(2, '0')}${at === 13 ? ' raker' : ''}`,
			Number((412_360.25 + at * 3.6).toFixed(2)),
			Number((78_140.5 + row * 7.2).toFixed(2)),
			-1.35,
			Number((-18.4 - (at % 5) * 0.65 - row * 0.4).toFixed(2)),
			null,
			driven ? `2026-10-${String(5 + i).padStart(2, '0')}` : null,
			i < 6 ? 'tested' : driven ? 'driven' : 'to drive',
			i === 8 ? 'Obstruction at −12.1, pre-bored' : null
		];
	});
}

/** Departments working in one text, one schedule and one drawing, and remarking on the linkspan's sheets. */
export function planTogether(
	stage: Stage,
	step: (daysAgo: number, hour: number, run: () => Promise<void>) => void
): void {
	let statement = '';
	const person = (name: string) => stage.people.get(name)!.person;
	const drawing = () => stage.by('VFT-MW-LS-00-DR-0101');
	/** Somebody writes in the statement. */
	const write = async (name: string, change: (text: Node) => Node) => {
		const { room } = await readView(stage.services, documentView, stage.people.get(name)!, {
			document: statement
		});
		await stage.services.rooms.change(room!.name, person(name).id, (doc) =>
			rewriteText(doc, change(readText(doc)))
		);
	};
	const replace = (said: string, by: string) => (text: Node) => {
		const at = find(text, said);
		return EditorState.create({ doc: text }).tr.insertText(by, at.from, at.to).doc;
	};

	step(4, 9.2, async () => {
		const { id } = await stage.act('Oke Lindvar', addLiveText, {
			folder: drawing().folder,
			number: 'VFT-MW-LS-00-SP-0005',
			title: 'Linkspan lifting method statement',
			text: methodStatement(drawing()).toJSON() as unknown,
			tags: ['lifting', 'method statement']
		});
		statement = id;
	});
	step(3, 10.4, () => write('Rhosyn Hale', replace('bow first', 'bow first, with both tugs made fast')));
	step(3, 14.1, async () => {
		await write('Maj Torvane', replace('25 mm', '20 mm'));
		await stage.act('Oke Lindvar', handInLive, {
			document: statement,
			note: 'Tower difference as agreed with Structures'
		});
	});
	step(1, 11.2, async () => {
		await write('Rhosyn Hale', replace('every 5 minutes', 'every 5 minutes, by two people'));
		await write('Rhosyn Hale', (text) => {
			const state = EditorState.create({ doc: text });
			const at = find(text, '30 minutes');
			const id = suggestionId(person('Rhosyn Hale').id, 'hold');
			return asSuggestion(state, state.tr.insertText('60 minutes', at.from, at.to), id)!.doc;
		});
	});
	step(1, 11.6, async () => {
		await stage.act('Ines Maddock', addRemark, {
			document: statement,
			anchor: { on: 'whole' },
			text: `${mentionText({ kind: 'person', id: person('Oke Lindvar').id, name: 'Oke Lindvar' })}, the harbour trust wants this a week before the lift. Ready by Friday?`
		});
	});

	let schedule = '';
	const fill = async (name: string, change: (held: Schedule, doc: Y.Doc) => void) => {
		const { room } = await readView(stage.services, documentView, stage.people.get(name)!, {
			document: schedule
		});
		await stage.services.rooms.change(room!.name, person(name).id, (doc) => change(readSchedule(doc), doc));
	};
	/** Sets a cell by the pile and the name of the column. */
	const cell = (pile: string, column: string, value: string | number) => (held: Schedule, doc: Y.Doc) => {
		const [first] = held.columns;
		const row = held.rows.find((r) => r.cells[first!.id] === pile)!;
		setCells(doc, [{ row: row.id, column: held.columns.find((c) => c.name === column)!.id, value }]);
	};
	step(6, 9.4, async () => {
		const { id } = await stage.act('Oke Lindvar', addLiveSchedule, {
			folder: drawing().folder,
			number: 'VFT-MW-LS-00-SH-0004',
			title: 'Linkspan pile schedule',
			schedule: { columns: BEGINNINGS.find((b) => b.name === 'Pile schedule')!.columns, rows: piles() },
			tags: ['piling']
		});
		schedule = id;
	});
	step(2, 15.2, async () => {
		await fill('Rhosyn Hale', cell('P-20', 'State', 'driven'));
		await fill('Rhosyn Hale', cell('P-20', 'Driven', '2026-10-29'));
		await fill('Maj Torvane', cell('P-09', 'Toe level', -21.9));
		await stage.act('Oke Lindvar', handInLive, { document: schedule, note: 'P-20 driven, P-09 longer' });
	});
	step(1, 9.3, async () => {
		await fill('Rhosyn Hale', cell('P-21', 'Driven', 'Friday?'));
		await fill('Rhosyn Hale', cell('P-22', 'State', 'broken off'));
		const { columns, rows } = await readView(stage.services, liveSchedule, stage.people.get('Maj Torvane')!, {
			document: schedule
		});
		await stage.act('Maj Torvane', addRemark, {
			document: schedule,
			anchor: { on: 'cell', row: rows[8]!.id, column: columns[4]!.id },
			quote: 'P-09, Toe level: -21.9',
			text: 'Deeper than the calculation assumes; Structures checks the negative skin friction.'
		});
	});

	const pipes = () => stage.by('VFT-MW-LS-00-DR-0701');
	step(2, 10.1, async () => {
		const { id } = pipes();
		await stage.act('Oke Lindvar', workDrawingLive, { document: id, base: pipes().label });
		for (const [layer, code] of [
			['SERVICE', 'BS'],
			['STEEL', 'ST'],
			['OUTLINE', 'MW'],
			['TITLE', 'MW']
		] as const)
			await stage.act('Ines Maddock', giveLayer, {
				document: id,
				layer,
				department: stage.departments.get(code)!
			});
	});

	step(5, 10.2, async () => {
		const document = drawing().id;
		await stage.act('Ines Maddock', addRemark, {
			document,
			anchor: { on: 'place', page: 1, x: 58_350, y: 2_640 },
			text: 'Scale is missing in the title block of the section.'
		});
		await stage.act('Rhosyn Hale', settleRemark, { document, remark: 1, note: 'Scale added.' });
		await stage.act('Aino Weir', addRemark, {
			document,
			anchor: { on: 'place', page: 1, x: 36_030, y: 35_100 },
			text: 'Pit wall now clashes with the cable duct from Building services. Who moves?'
		});
		await stage.act('Oke Lindvar', answerRemark, {
			document,
			remark: 2,
			text: 'The duct can drop by 200; I ask Building services for it today.'
		});
		await stage.act('Oke Lindvar', assignRemark, {
			document,
			remark: 2,
			assign: { kind: 'person', id: person('Rhosyn Hale').id },
			due: dayIn(stage.today - DAY)
		});
		await stage.act('Rhosyn Hale', addRemark, {
			document,
			anchor: { on: 'place', page: 1, x: 21_400, y: 34_370 },
			text: 'Check the camber at midspan against the supplier’s sheet.'
		});
	});
}
