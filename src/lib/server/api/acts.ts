import type { Act } from '../platform/runner/act';
import * as account from '../people/acts-account';
import * as grants from '../access/acts';
import * as joining from '../people/acts-joining';
import * as standing from '../access/acts-standing';
import * as comingIn from '../people/acts-coming-in';
import * as copies from '../places/acts-copies';
import * as desks from '../places/acts-desk';
import * as documents from '../documents/acts';
import * as folders from '../places/acts';
import * as groups from '../people/acts-groups';
import * as handIns from '../documents/acts-hand-in';
import * as titleBlocks from '../documents/acts-title-block';
import * as hatches from '../hatches/acts';
import * as live from '../live/acts';
import * as liveDrawings from '../live/acts-drawings';
import * as liveSchedules from '../live/acts-schedules';
import * as liveTexts from '../live/acts-texts';
import * as locks from '../locks/acts';
import * as marks from '../marks/acts';
import * as membership from '../people/acts-membership';
import * as notices from '../notices/acts';
import * as answering from '../passes/acts-answering';
import * as drawing from '../passes/acts-drawing';
import * as passes from '../passes/acts-release';
import * as givenPasses from '../passes/acts-given';
import * as openPasses from '../passes/acts-open';
import * as placePasses from '../passes/acts';
import * as people from '../people/acts';
import * as approval from '../releases/acts-approval';
import * as register from '../register/acts';
import * as registerChoices from '../register/acts-choices';
import * as registerForecast from '../register/acts-forecast';
import * as registerList from '../register/acts-list';
import * as registerTemplates from '../register/acts-templates';
import * as build from '../releases/acts';
import * as begin from '../releases/acts-begin';
import * as issue from '../releases/acts-issue';
import * as holders from '../releases/acts-holders';
import * as packages from '../releases/acts-package';
import * as colleagues from '../releases/acts-colleagues';
import * as remarkInRelease from '../releases/acts-remark';
import * as verdicts from '../releases/acts-verdicts';
import * as standIns from '../releases/acts-stand-ins';
import * as remarks from '../remarks/acts';
import * as removals from '../removed/acts';
import * as revising from '../documents/acts-revising';
import * as settings from '../settings/acts';
import * as today from '../today/acts';
import * as tidy from '../places/acts-organise';

function isAct(value: unknown): value is Act {
	return typeof value === 'object' && value !== null && 'method' in value && 'run' in value;
}

/** Every act of Cupboard. A module's acts join by being exported from it. */
export const ACTS: readonly Act[] = [
	documents,
	desks,
	handIns,
	titleBlocks,
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
	joining,
	membership,
	settings,
	comingIn,
	groups,
	grants,
	standing,
	account,
	register,
	registerForecast,
	registerList,
	registerChoices,
	registerTemplates,
	begin,
	build,
	approval,
	remarkInRelease,
	issue,
	standIns,
	holders,
	packages,
	colleagues,
	verdicts,
	answering,
	drawing,
	passes,
	notices,
	placePasses,
	openPasses,
	givenPasses,
	hatches,
	today
].flatMap((module) => Object.values(module as Record<string, unknown>).filter(isAct));
