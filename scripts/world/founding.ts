import { KAJA, MAREN, RUNA } from './client';
import { eq, sql } from 'drizzle-orm';
import { acceptInvitation } from '../../src/lib/server/people/acts-account';
import { makeFolder, makeShelf } from '../../src/lib/server/places/acts';
import { addRecipient, makeDepartment, makeProject } from '../../src/lib/server/people/acts';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { mail } from '../../src/lib/server/platform/db/schema';
import { firstCode, makeFirst } from '../../src/lib/server/people/first';
import { DEPARTMENTS, PEOPLE, SHELVES, titlesOf, type FolderPlan } from './catalogue';
import { ZONE } from './days';
import type { Stage } from './stage';

export const PASSWORD = 'cupboard-demo';

/** The project, its departments and people, the shelves with their folders. */
export async function found(stage: Stage): Promise<void> {
	stage.clock = stage.at(124, 8);
	const code = await firstCode(stage.services.database);
	await makeFirst(stage.services.database, code!, {
		name: 'Ines Maddock',
		email: 'ines@vennholm.example',
		password: PASSWORD
	});
	await stage.know('Ines Maddock');
	const made = await stage.act('Ines Maddock', makeProject, {
		code: 'VFT',
		name: 'Vennholm Ferry Terminal',
		client: 'Vennholm Harbour Trust',
		timeZone: ZONE,
		firstRelease: 25
	});
	stage.project = made.id;
	const { departments } = stage;
	for (const d of DEPARTMENTS)
		departments.set(
			d.code,
			(await stage.act('Ines Maddock', makeDepartment, { project: stage.project, ...d })).id
		);
	const { db } = stage.services.database;
	await db.execute(
		sql`insert into department_member (department_id, person_id, lead) select ${departments.get('DC')!}, id, true from person`
	);
	for (const p of PEOPLE.slice(1)) {
		const email = `${p.name.split(' ')[0]!.toLowerCase()}@vennholm.example`;
		await stage.act('Ines Maddock', addPerson, {
			project: stage.project,
			name: p.name,
			email,
			department: departments.get(p.department),
			lead: p.lead ?? false,
			controller: p.controller ?? false
		});
		const [invitation] = await db.select({ body: mail.body }).from(mail).where(eq(mail.toAddress, email));
		const secret = /invited\/(\S+)/.exec(invitation!.body)![1]!;
		await stage.act(null, acceptInvitation, { secret, password: PASSWORD });
		await stage.know(p.name);
	}
	await stage.act('Ines Maddock', addRecipient, {
		project: stage.project,
		name: 'Maren Aldgate',
		company: 'Vennholm Harbour Trust',
		email: MAREN
	});
	await stage.act('Ines Maddock', addRecipient, {
		project: stage.project,
		name: 'Kaja Dorn',
		company: 'Tarn Steelwork',
		email: KAJA
	});
	await stage.act('Ines Maddock', addRecipient, {
		project: stage.project,
		name: 'Runa Stave',
		company: 'Vennholm Town Planning',
		email: RUNA
	});
	for (const d of DEPARTMENTS) {
		const also =
			d.code === 'DC' || d.code === 'SI'
				? []
				: DEPARTMENTS.filter(
						(o) =>
							['AR', 'ST', 'MW', 'BS', 'PL'].includes(o.code) &&
							o.code !== d.code &&
							shares(stage, d.code, o.code)
					).map((o) => ({ department: departments.get(o.code)!, level: 'view' }));
		const shelf = await stage.act('Ines Maddock', makeShelf, {
			project: stage.project,
			name: d.name,
			department: departments.get(d.code),
			also
		});
		await folders(stage, d.code, shelf.id, SHELVES[d.code]!);
	}
}

/** Neighbours in the design look at each other's shelves. */
function shares(stage: Stage, a: string, b: string): boolean {
	const pairs = ['AR-ST', 'AR-BS', 'AR-PL', 'ST-MW', 'MW-PL', 'ST-BS'];
	return pairs.includes(`${a}-${b}`) || pairs.includes(`${b}-${a}`);
}

async function folders(stage: Stage, department: string, parent: string, plans: FolderPlan[]): Promise<void> {
	for (const plan of plans) {
		const { id } = await stage.act(stage.leadOf(department), makeFolder, { parent, name: plan.name });
		for (const run of plan.runs) {
			titlesOf(run.titles).forEach((title, i) => {
				const number = `VFT-${department}-${plan.zone}-${plan.level}-${run.type}-${String(run.first + i).padStart(4, '0')}`;
				stage.docs.push({
					id: '',
					number,
					title,
					department,
					run,
					folder: id,
					label: '',
					edits: 0,
					lockedBy: null
				});
			});
		}
		if (plan.inside) await folders(stage, department, id, plan.inside);
	}
}
