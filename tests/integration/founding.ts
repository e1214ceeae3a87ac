import { resolve } from 'node:path';
import { eq } from 'drizzle-orm';
import type { z } from 'zod';
import type { Kind } from '../../src/lib/contract/act';
import { makeFolder, makeShelf } from '../../src/lib/server/places/acts';
import { addRecipient, makeDepartment, makeProject } from '../../src/lib/server/people/acts';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { firstCode, makeFirst } from '../../src/lib/server/people/first';
import type { Config } from '../../src/lib/server/platform/config';
import { person } from '../../src/lib/server/platform/db/schema';
import type { Act } from '../../src/lib/server/platform/runner/act';
import type { Actor } from '../../src/lib/server/platform/runner/actor';
import { runAct } from '../../src/lib/server/platform/runner/run';
import type { Services } from '../../src/lib/server/platform/services';

/** The small project that every test begins with: who is in it, and the ids of what is there. */
export interface Founded {
	people: Record<string, Actor>;
	project: string;
	departments: Record<string, string>;
	/** A shelf of Marine works with the folder Linkspan, and a shelf of Architecture that Marine works may look at. */
	shelf: string;
	folder: string;
	other: string;
	recipient: string;
}

/** How a Cupboard of the tests is set. */
export function testConfig(databaseUrl: string, home: string): Config {
	return {
		databaseUrl,
		home,
		store: resolve(home, 'store'),
		origin: 'http://127.0.0.1:4680',
		demo: false,
		smtpUrl: null,
		mailFrom: 'Cupboard <cupboard@localhost>',
		redisUrl: null,
		trustedProxies: [],
		frontStore: null,
		certificate: null,
		memoryMark: 4_000,
		waiting: { member: 1e9, hatch: 1e9, project: 1e9 },
		secret: 'a secret for tests only, long enough',
		// The built one: threads do not run from source within the test runner.
		workerFile: resolve('build/worker/worker.js')
	};
}

/** Founds the small project in an empty database, through the acts. */
export async function found(services: Services): Promise<Founded> {
	const people: Founded['people'] = {};
	const know = async (name: string) => {
		const [row] = await services.database.db
			.select()
			.from(person)
			.where(eq(person.email, `${name}@vennholm.example`));
		people[name] = { person: { id: row!.id, name: row!.name, email: row!.email }, via: 'session' };
	};
	const act = <K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
		who: string,
		one: Act<K, S, O>,
		input: unknown
	) => runAct(services, one, people[who]!, input);

	await makeFirst(services.database, (await firstCode(services.database))!, {
		name: 'Ines Maddock',
		email: 'ines@vennholm.example',
		password: 'a long password'
	});
	await know('ines');
	const { id: project } = await act('ines', makeProject, {
		code: 'VFT',
		name: 'Vennholm Ferry Terminal',
		client: 'Vennholm Harbour Trust'
	});
	const department = async (code: string, name: string) =>
		(await act('ines', makeDepartment, { project, code, name })).id;
	const departments: Founded['departments'] = {
		MW: await department('MW', 'Marine works'),
		AR: await department('AR', 'Architecture')
	};
	for (const [first, name, code, lead] of [
		['oke', 'Oke Lindvar', 'MW', true],
		['rhosyn', 'Rhosyn Hale', 'MW', false],
		['halla', 'Halla Brandt', 'AR', true],
		['petra', 'Petra Quill', 'AR', false],
		['edda', 'Edda Norrow', null, false]
	] as const) {
		await act('ines', addPerson, {
			project,
			name,
			email: `${first}@vennholm.example`,
			...(code ? { department: departments[code], lead } : {})
		});
		await know(first);
	}
	const { id: shelf } = await act('ines', makeShelf, {
		project,
		name: 'Marine works',
		department: departments.MW
	});
	const { id: other } = await act('ines', makeShelf, {
		project,
		name: 'Architecture',
		department: departments.AR,
		also: [{ department: departments.MW, level: 'view' }]
	});
	const { id: folder } = await act('oke', makeFolder, { parent: shelf, name: 'Linkspan' });
	const { id: recipient } = await act('ines', addRecipient, {
		project,
		name: 'Maren Aldgate',
		company: 'Vennholm Harbour Trust',
		email: 'maren@harbourtrust.example'
	});
	return { people, project, departments, shelf, folder, other, recipient };
}
