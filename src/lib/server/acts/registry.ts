import type { Act } from './act';
import * as account from './account';
import * as grants from './access/grants';
import * as standing from './access/standing';
import * as comingIn from './coming-in';
import * as copies from './copies';
import * as documents from './documents';
import * as folders from './folders';
import * as groups from './groups';
import * as handIns from './hand-in';
import * as hatches from './hatches';
import * as live from './live';
import * as liveDrawings from './live-drawings';
import * as liveSchedules from './live-schedules';
import * as liveTexts from './live-texts';
import * as locks from './locks';
import * as marks from './marks';
import * as membership from './membership';
import * as notices from './notices';
import * as passes from './passes';
import * as givenPasses from './given-passes';
import * as openPasses from './open-passes';
import * as placePasses from './place-passes';
import * as people from './people';
import * as approval from './releases/approval';
import * as build from './releases/build';
import * as issue from './releases/issue';
import * as remarks from './remarks';
import * as removals from './removals';
import * as revising from './revising';
import * as tidy from './tidy';

function isAct(value: unknown): value is Act {
	return typeof value === 'object' && value !== null && 'method' in value && 'run' in value;
}

/** Every act of Cupboard. A module's acts join by being exported from it. */
export const ACTS: readonly Act[] = [
	documents,
	handIns,
	live,
	liveTexts,
	liveSchedules,
	liveDrawings,
	remarks,
	marks,
	locks,
	folders,
	removals,
	tidy,
	copies,
	revising,
	people,
	membership,
	comingIn,
	groups,
	grants,
	standing,
	account,
	build,
	approval,
	issue,
	passes,
	notices,
	placePasses,
	openPasses,
	givenPasses,
	hatches
].flatMap((module) => Object.values(module as Record<string, unknown>).filter(isAct));
