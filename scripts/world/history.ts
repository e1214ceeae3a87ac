import { openPass } from '../../src/lib/server/passes/acts-open';
import { openDocument, restoreVersion } from '../../src/lib/server/documents/acts';
import { takeLock } from '../../src/lib/server/locks/acts';
import {
	confirmReceipt,
	saveVerdicts,
	signVerdicts,
	takeFromPass
} from '../../src/lib/server/passes/acts-release';
import { drawMarks } from '../../src/lib/server/passes/acts-drawing';
import { markProjectSeen } from '../../src/lib/server/people/acts';
import { consolidateVerdicts } from '../../src/lib/server/releases/acts-verdicts';
import { releaseView } from '../../src/lib/server/releases/views';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { removePlace, restorePlace } from '../../src/lib/server/removed/acts';
import { planAccess } from './access';
import { planRegister } from './register';
import { planDesks } from './desks';
import { planTogether } from './together';
import { PEOPLE } from './catalogue';
import type { Drawn } from '../../src/lib/core/releases/drawn';
import { DAY } from '../../src/lib/core/time/spans';
import { dayIn } from './days';
import { HOUR, type Doc, type Stage } from './stage';
import { add, revise, take } from './works';
import { buildAndApprove, KAJA, MAREN, refreshLabels, RUNA, type To } from './client';
import { constructionIssue, keepRoutes } from './routes';

/** What the client draws on the elevations of the lifting tower, in points of the sheet. */
const LADDER: Drawn[] = [
	{
		...{ id: 'cloud-ladder', kind: 'cloud', page: 1, turn: 0, size: 26, text: '', group: null, order: 1 },
		points: [
			{ x: 1340, y: 1060 },
			{ x: 1425, y: 1215 }
		]
	},
	{
		...{ id: 'words-ladder', kind: 'callout', page: 1, turn: 0, size: 26, group: null, order: 2 },
		text: 'Cage from 3 m up,\nas on the front',
		points: [
			{ x: 1425, y: 1130 },
			{ x: 1540, y: 1010 }
		]
	}
];

/** Something that happens at a moment, and the document of which it makes the next file. */
interface Step {
	at: number;
	run: () => Promise<void>;
	makes?: Doc;
}

/** Everything that happens after the founding, each step with its moment. */
export async function plan(stage: Stage): Promise<Step[]> {
	const steps: Step[] = [];
	const step = (daysAgo: number, hour: number, run: () => Promise<void>, makes?: Doc) =>
		steps.push({ at: stage.at(daysAgo, hour), run, ...(makes ? { makes } : {}) });
	planAccess(stage, step);
	planTogether(stage, step);
	planDesks(stage, step);
	const r = stage.random;
	/** A revision some time after its lock was taken. */
	const revision = (daysAgo: number, hour: number, doc: Doc) => {
		step(daysAgo, hour - 0.3 - r.next(), () => take(stage, doc));
		step(daysAgo, hour, () => revise(stage, doc), doc);
	};
	const bornOf = new Map<Doc, number>();
	for (const doc of stage.docs) {
		const photo = doc.run.type === 'PH' || doc.title.startsWith('Daily record');
		const born = photo ? r.int(1, 70) : r.int(42, 118);
		bornOf.set(doc, born);
		step(born, r.int(7, 16) + r.next(), () => add(stage, doc), doc);
		const linkspan = doc.number.includes('-LS-00-DR-01');
		const more = photo ? (r.chance(0.1) ? 1 : 0) : linkspan ? 0 : r.pick([1, 1, 2, 2, 2, 3, 3, 4]);
		for (let i = 0; i < more; i++) {
			const daysAgo = Math.max(1, Math.floor(born - ((born - 1) * (i + r.next())) / more));
			revision(daysAgo, r.int(7, 11) + r.next(), doc);
		}
	}
	step(100, 8, () => keepRoutes(stage));
	planRegister(stage, bornOf, step);
	// The linkspan drawings have a history worth comparing.
	const linkspan = stage.docs.filter((d) => d.number.startsWith('VFT-MW-LS-00-DR-01'));
	for (const doc of linkspan) {
		for (const daysAgo of [38, 33, 29]) revision(daysAgo, 9 + r.next() * 3, doc);
		for (const daysAgo of [20, 16]) revision(daysAgo, 9 + r.next() * 3, doc);
	}
	const numbers = (filter: (d: Doc) => boolean, most: number) => () =>
		stage.docs.filter((d) => d.id && !d.lockedBy && filter(d)).slice(0, most);
	const release = (
		daysAgo: number,
		title: string,
		purpose: string,
		pick: () => Doc[],
		reply: number | null,
		after: (
			secret: string,
			docs: Doc[],
			others: string[],
			about: { id: string; number: number }
		) => Promise<void>,
		to?: To[]
	) =>
		step(daysAgo, 13, async () => {
			const docs = pick();
			if (!docs.length) throw new Error(`Nothing is there yet for “${title}”.`);
			const about = await buildAndApprove(
				stage,
				title,
				purpose,
				docs,
				reply === null ? null : dayIn(stage.at(reply, 0)),
				to
			);
			const { passes } = await stage.act(
				'Ines Maddock',
				issueRelease,
				{ release: about.id, number: about.number, passDays: 120 },
				stage.clock + 20 * 60_000
			);
			await refreshLabels(stage, docs);
			const [first, ...others] = passes.map(({ link }) => link.split('/pass/')[1]!);
			await after(first!, docs, others, about);
		});
	/** The client opens a release, confirms it, and signs what the codes say; '-' leaves a document without an answer. */
	const answered =
		(codes: string, remarks: Partial<Record<'B' | 'C' | 'D', string>>, days = 4) =>
		async (secret: string, docs: Doc[]) => {
			await stage.act(null, openPass, { secret }, stage.clock + 20 * HOUR);
			await stage.act(null, confirmReceipt, { secret }, stage.clock + 10 * 60_000);
			const answers = docs.flatMap((d, i) => {
				const code = codes[i % codes.length] as 'A' | 'B' | 'C' | 'D' | '-';
				return code === '-'
					? []
					: [{ document: d.id, code, remark: code === 'A' ? '' : (remarks[code] ?? '') }];
			});
			if (answers.length)
				await stage.act(
					null,
					signVerdicts,
					{ secret, name: 'Maren Aldgate', answers },
					stage.clock + days * DAY
				);
		};
	const within = (...beginnings: string[]) =>
		numbers((d) => beginnings.some((one) => d.number.startsWith(one)), 14);
	release(
		92,
		'Terminal plans and sections for comment',
		'comment',
		within('VFT-AR-TB-00'),
		80,
		answered('BABA', { B: 'Say which floor finish meets the ramp.' })
	);
	release(
		81,
		'Foundations and piles for comment',
		'comment',
		within('VFT-ST-TB-FN'),
		70,
		answered('ABCB', {
			B: 'The working load differs from the calculation by 100 kN.',
			C: 'Toe levels do not follow the boreholes on grid D.'
		})
	);
	release(
		70,
		'Façade for approval',
		'approval',
		within('VFT-AR-TB-EX'),
		58,
		async (secret, docs, [planning], about) => {
			const said = answered('AABD', {
				B: 'Show the joint at the corner.',
				D: 'This bay is not what was agreed in the workshop of July.'
			});
			await said(secret, docs);
			await stage.act(null, openPass, { secret: planning! }, stage.clock + HOUR);
			await stage.act(null, signVerdicts, {
				secret: planning!,
				name: 'Runa Stave',
				answers: docs.map((d, i) => ({
					document: d.id,
					code: 'AABD'[i % 4] === 'A' && i ? 'B' : 'AABD'[i % 4],
					remark: i ? 'The ridge stays under the height of the plan.' : ''
				}))
			});
			// One is left to be made one of, as it may be on any Monday.
			const { items } = await stage.read('Ines Maddock', releaseView, {
				project: stage.project,
				number: about.number
			});
			for (const item of items.filter((one) => one.mayConsolidate).slice(1))
				await stage.act(
					'Ines Maddock',
					consolidateVerdicts,
					{
						release: about.id,
						document: item.documentId,
						code: 'B',
						reason: 'The height is part of the permit; the client agrees to show it.'
					},
					stage.clock + DAY
				);
		},
		[{ email: MAREN }, { email: RUNA }]
	);
	release(
		61,
		'Ventilation and lighting for comment',
		'comment',
		within('VFT-BS-TB'),
		50,
		answered('B--A-', { B: 'Fans stand within reach from the public side.' }, 6)
	);
	release(52, 'Survey reports for information', 'information', within('VFT-PL-ML'), null, answered('-', {}));
	release(
		40,
		'Scheme design, all departments',
		'information',
		numbers((d) => d.run.type !== 'PH' && d.number < 'VFT-SI' && d.edits > 0, 130),
		null,
		async (secret) => {
			await stage.act(null, openPass, { secret }, stage.clock + 2 * HOUR);
			await stage.act(null, confirmReceipt, { secret });
		}
	);
	release(
		27,
		'Linkspan drawings for comment',
		'comment',
		() => linkspan,
		19,
		async (secret, docs) => {
			await stage.act(null, openPass, { secret }, stage.clock + 3 * HOUR);
			await stage.act(
				null,
				signVerdicts,
				{
					secret,
					name: 'Maren Aldgate',
					answers: docs.map((d, i) => ({
						document: d.id,
						code: i % 3 === 1 ? 'C' : 'B',
						remark: i % 3 === 1 ? 'Scale missing in the title block of the section.' : ''
					}))
				},
				stage.clock + DAY
			);
		}
	);
	// The steelwork goes by the same drawings; what is issued after that goes to the client first.
	release(
		25,
		'Linkspan drawings for steelwork',
		'comment',
		() => linkspan.slice(0, 6),
		null,
		async (secret, docs) => {
			await stage.act(null, openPass, { secret }, stage.clock + 2 * HOUR);
			await stage.act(null, takeFromPass, { secret, document: docs[0]!.id, how: 'downloaded' });
			await stage.act(null, confirmReceipt, { secret });
		},
		[{ email: KAJA, expects: 'receipt' }]
	);
	release(
		12,
		'Linkspan for approval',
		'approval',
		() => linkspan,
		-2,
		async (secret, docs) => {
			await stage.act(null, openPass, { secret }, stage.clock + 19 * HOUR);
			await stage.act(null, confirmReceipt, { secret }, stage.clock + 5 * 60_000);
			await stage.act(null, drawMarks, { secret, document: docs[2]!.id, drawn: LADDER }, stage.clock + DAY);
			const remark = ['Show mean low water on the elevation.', '', 'Tower ladder lacks a cage above 3 m.'];
			await stage.act(
				null,
				signVerdicts,
				{
					secret,
					name: 'Maren Aldgate',
					answers: docs
						.slice(0, 3)
						.map((d, i) => ({ document: d.id, code: ['B', 'A', 'C'][i], remark: remark[i]! }))
				},
				stage.clock + 2 * DAY
			);
			await stage.act(null, saveVerdicts, {
				secret,
				answers: docs.slice(3, 5).map((d) => ({ document: d.id, code: 'A', remark: '' }))
			});
		}
	);
	step(9, 15, async () => {
		const gone = stage.by('VFT-PL-ZZ-XX-RP-0004');
		gone.removed = true;
		await stage.act('Wren Ostrow', removePlace, {
			place: gone.id,
			reason: 'Replaced by the statement of the acoustics consultant'
		});
		const wrong = stage.docs.find((d) => d.run.type === 'PH' && d.department === 'SI' && d.id)!;
		wrong.removed = true;
		await stage.act('Sefa Tuimala', removePlace, { place: wrong.id, reason: 'A person can be recognised' });
		const back = stage.by('VFT-AR-TB-XX-SH-0021');
		await stage.act('Halla Brandt', removePlace, { place: back.id, reason: 'Thought to be a duplicate' });
		await stage.act('Halla Brandt', restorePlace, { place: back.id }, stage.clock + 2 * HOUR);
	});
	step(8, 11, async () => {
		const doc = stage.by('VFT-MW-QW-00-DR-0301');
		if (doc.edits > 2 && !doc.lockedBy)
			doc.label = (
				await stage.act('Oke Lindvar', restoreVersion, {
					document: doc.id,
					label: 'P01.1',
					note: 'The first alignment holds after all'
				})
			).label;
	});
	step(6, 16.2, async () => {
		const stale = stage.by('VFT-MW-LS-00-DR-0121');
		await stage.act('Rhosyn Hale', takeLock, {
			document: stale.id,
			purpose: 'guard rail heights',
			expectedEnd: new Date(stage.at(3, 15)).toISOString()
		});
		stale.lockedBy = 'Rhosyn Hale';
	});
	step(2, 16, async () => {
		for (const person of PEOPLE) await stage.act(person.name, markProjectSeen, { project: stage.project });
	});
	// Now: what is in hand this morning.
	const now = (minutesAgo: number, run: () => Promise<void>) =>
		steps.push({ at: stage.end - minutesAgo * 60_000, run });
	step(1, 15.3, () =>
		revise(stage, stage.by('VFT-MW-LS-00-DR-0101'), {
			who: 'Oke Lindvar',
			keep: true,
			note: 'New hinge centreline from supplier',
			purpose: 'pit wall setting out'
		})
	);
	now(190, () =>
		revise(stage, stage.by('VFT-MW-LS-00-DR-0101'), { keep: true, note: 'Pit wall moved 150 towards quay' })
	);
	now(110, async () => {
		const mine = stage.by('VFT-MW-LS-00-DR-0103');
		await stage.act('Ines Maddock', takeLock, {
			document: mine.id,
			purpose: 'title block corrected',
			expectedEnd: new Date(stage.end + 3 * HOUR).toISOString()
		});
		mine.lockedBy = 'Ines Maddock';
	});
	const held: [number, string, string, string][] = [
		[95, 'VFT-ST-TB-FN-DR-0105', 'Aino Weir', 'pile cap sizes'],
		[90, 'VFT-AR-TB-00-DR-0101', 'Petra Quill', 'door swings in the west wing'],
		[85, 'VFT-AR-TB-00-DR-0102', 'Jun Sabol', 'stair 2'],
		[80, 'VFT-AR-TB-XX-SH-0001', 'Halla Brandt', 'fire doors'],
		[75, 'VFT-BS-TB-01-DR-0101', 'Lumi Arden', 'main duct size'],
		[70, 'VFT-BS-SU-00-DR-0201', 'Dario Fenn', 'duct bank depth'],
		[65, 'VFT-PL-ZZ-XX-MN-0035', 'Edda Norrow', 'actions list'],
		[60, 'VFT-SI-QW-00-DR-0901', 'Bram Oyelund', 'surveyed positions'],
		[55, 'VFT-SI-ZZ-XX-SH-0095', 'Tove Askerby', 'hold points'],
		[50, 'VFT-MW-QW-00-DR-0301', 'Maj Torvane', 'tie rod level'],
		[45, 'VFT-ST-TB-XX-CA-0041', 'Kell Harrant', 'drift at the parapet']
	];
	for (const [ago, number, who, purpose] of held) {
		now(ago, async () => {
			const doc = stage.by(number);
			if (doc.lockedBy) return;
			await stage.act(who, takeLock, {
				document: doc.id,
				purpose,
				expectedEnd: new Date(stage.end + 6 * HOUR).toISOString()
			});
			doc.lockedBy = who;
		});
	}
	now(180, () => constructionIssue(stage));
	now(25, async () => {
		for (const [who, number] of [
			['Ines Maddock', 'VFT-MW-LS-00-DR-0101'],
			['Halla Brandt', 'VFT-AR-TB-00-DR-0103'],
			['Tomas Verrin', 'VFT-ST-TB-RF-DR-0201']
		] as const)
			await stage.act(who, openDocument, { document: stage.by(number).id });
	});
	for (const [ago, number] of [
		[22, 'VFT-BS-TB-XX-DR-0501'],
		[15, 'VFT-MW-LS-00-SP-0003'],
		[8, 'VFT-AR-TB-XX-DR-0601']
	] as const)
		now(ago, () => revise(stage, stage.by(number)));
	return steps;
}
