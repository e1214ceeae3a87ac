import type { DistributionRule, Step } from '../../src/lib/core/releases';
import { recipient } from '../../src/lib/server/platform/db/schema';
import { addToRelease } from '../../src/lib/server/releases/acts';
import { approveRelease, askApproval, sendBack } from '../../src/lib/server/releases/acts-approval';
import { nameStandIn } from '../../src/lib/server/releases/acts-stand-ins';
import { releaseView } from '../../src/lib/server/releases/views';
import { changeSettings } from '../../src/lib/server/settings/acts';
import { acceptLooks, build, KAJA, MAREN, RUNA } from './client';
import { dayIn } from './days';
import type { Stage } from './stage';

const step = (
	stage: Stage,
	name: string,
	needs: Step['needs'],
	people: string[],
	days: number | null
): Step => ({
	name,
	of: people.map((one) => ({ kind: 'person', id: stage.people.get(one)!.person.id })),
	needs,
	days
});

const construction = (stage: Stage): Step[] => [
	step(stage, 'Check', 'all', ['Aino Weir', 'Kell Harrant'], 2),
	step(stage, 'Lead approval', 2, ['Halla Brandt', 'Tomas Verrin', 'Oke Lindvar'], 2)
];

/** The routes that the project keeps, and its distribution list. */
export async function keepRoutes(stage: Stage): Promise<void> {
	const known = await stage.services.database.db
		.select({ id: recipient.id, email: recipient.email })
		.from(recipient);
	const rule = (email: string, more: Partial<DistributionRule> = {}): DistributionRule => ({
		recipient: known.find((one) => one.email === email)!.id,
		expects: 'verdicts',
		asks: 'code',
		purposes: [],
		departments: [],
		zones: [],
		types: [],
		...more
	});
	await stage.act('Ines Maddock', changeSettings, {
		project: stage.project,
		distribution: [
			rule(MAREN, { asks: 'nothing' }),
			rule(KAJA, {
				expects: 'receipt',
				asks: 'account',
				purposes: ['construction'],
				departments: ['ST', 'MW'],
				types: ['DR', 'CA']
			}),
			rule(RUNA, {
				expects: 'information',
				asks: 'nothing',
				purposes: ['approval', 'construction'],
				departments: ['AR', 'PL']
			})
		],
		routes: [
			{ name: 'Construction issue', purpose: 'construction', steps: construction(stage) },
			{
				name: 'Approval by the lead',
				purpose: 'approval',
				steps: [step(stage, 'Approval', 'any', ['Halla Brandt', 'Tomas Verrin', 'Oke Lindvar'], 3)]
			},
			{
				name: 'For comment and information',
				purpose: null,
				steps: [
					{
						name: 'Release',
						of: [{ kind: 'department', id: stage.departments.get('AR')! }],
						needs: 'any',
						days: 2
					}
				]
			}
		]
	});
}

/** A release on its way: checked, sent back by a lead, built anew, checked again, approved by one of two. */
export async function constructionIssue(stage: Stage): Promise<void> {
	const minutes = 60_000;
	const chosen = ['RF-DR-0201', 'RF-DR-0202', 'RF-DR-0210', 'FN-DR-0104', 'FN-DR-0106', 'FN-CA-0012'].map(
		(one) => stage.by(`VFT-ST-TB-${one}`)
	);
	const about = await build(
		stage,
		'Substructure and roof frame for construction',
		'construction',
		[...chosen, stage.by('VFT-AR-TB-EX-DR-0201')],
		dayIn(stage.at(-9, 0)),
		construction(stage),
		[
			{ email: MAREN, asks: 'code' },
			{ email: KAJA, expects: 'receipt', asks: 'account', documents: chosen.slice(0, 4) },
			{ email: RUNA, expects: 'information', documents: [stage.by('VFT-AR-TB-EX-DR-0201'), ...chosen] }
		],
		'Work on the piles may begin with this set. The reinforcement of the other caps follows on 14 December.'
	);
	const approve = async (who: string) => {
		const { digest } = await stage.read(who, releaseView, { project: stage.project, number: about.number });
		await stage.act(who, approveRelease, { release: about.id, digest }, stage.clock + 4 * minutes);
	};
	await acceptLooks(stage, about);
	await stage.act('Ines Maddock', askApproval, { release: about.id });
	for (const who of ['Aino Weir', 'Kell Harrant']) await approve(who);
	await stage.act(
		'Tomas Verrin',
		sendBack,
		{ release: about.id, reason: 'The reinforcement of pile cap PC1 belongs in this release.' },
		stage.clock + 6 * minutes
	);
	await stage.act('Tomas Verrin', nameStandIn, {
		project: stage.project,
		standIn: stage.people.get('Aino Weir')!.person.id,
		from: dayIn(stage.at(0, 0)),
		until: dayIn(stage.at(-4, 0))
	});
	await stage.act('Ines Maddock', addToRelease, {
		release: about.id,
		documents: [stage.by('VFT-ST-TB-FN-DR-0112').id]
	});
	await acceptLooks(stage, about);
	await stage.act('Ines Maddock', askApproval, { release: about.id }, stage.clock + 3 * minutes);
	for (const who of ['Kell Harrant', 'Aino Weir', 'Halla Brandt']) await approve(who);
}
