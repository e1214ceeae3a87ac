import type { View } from '../acts/act';
import * as activity from './activity';
import * as documents from './documents';
import * as finding from './find';
import * as places from './places';
import * as project from './project';
import * as releases from './releases';
import * as remarks from './remarks';
import * as access from './access';
import * as effects from './effects';
import * as given from './given';
import * as live from './live';
import * as marks from './marks';
import * as notices from './notices';
import * as passes from './passes';
import * as tree from './tree';

function isView(value: unknown): value is View {
	return typeof value === 'object' && value !== null && 'at' in value && 'run' in value;
}

/** Every view of Cupboard. A module's views join by being exported from it. */
export const VIEWS: readonly View[] = [
	tree,
	places,
	documents,
	live,
	remarks,
	marks,
	finding,
	access,
	effects,
	given,
	activity,
	project,
	releases,
	passes,
	notices
].flatMap((module) => Object.values(module as Record<string, unknown>).filter(isView));
