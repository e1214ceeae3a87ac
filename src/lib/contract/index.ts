import type { ActContract, ViewContract } from './act';
import * as access from './access';
import * as deliverables from './deliverables';
import * as desks from './desks';
import * as documents from './documents';
import { FILES, type FileContract } from './files';
import * as find from './find';
import * as hatches from './hatches';
import * as holders from './holders';
import * as live from './live';
import * as locks from './locks';
import * as marks from './marks';
import * as notices from './notices';
import * as packages from './packages';
import * as answering from './answering';
import * as passes from './passes';
import * as people from './people';
import * as places from './places';
import * as references from './references';
import * as received from './received';
import * as register from './register';
import * as releaseViews from './release-views';
import * as releases from './releases';
import * as standIns from './stand-ins';
import * as remarks from './remarks';
import * as removed from './removed';
import * as settings from './settings';
import * as today from './today';
import * as trail from './trail';

const NOUNS = {
	...access,
	...deliverables,
	...desks,
	...documents,
	...find,
	...hatches,
	...holders,
	...live,
	...locks,
	...marks,
	...notices,
	...packages,
	...answering,
	...passes,
	...people,
	...places,
	...references,
	...received,
	...register,
	...releases,
	...releaseViews,
	...standIns,
	...remarks,
	...removed,
	...settings,
	...today,
	...trail
};
type Nouns = typeof NOUNS;

/** Every act and view by its name. What else a noun's contract exports (fields, limits) is left out. */
export type Contracts = {
	[
		N in keyof Nouns as Nouns[N] extends { input: unknown; output: unknown; path: string } ? N : never
	]: Nouns[N];
};

const isContract = (value: unknown): value is ActContract | ViewContract =>
	typeof value === 'object' && value !== null && 'input' in value && 'output' in value && 'path' in value;

/** Everything that can be asked of Cupboard or changed there, as data. */
export const CONTRACTS: readonly (ActContract | ViewContract)[] =
	Object.values<unknown>(NOUNS).filter(isContract);

/** Every address that gives or takes bytes, or a stream. */
export const FILE_CONTRACTS: readonly FileContract[] = Object.values(FILES);
