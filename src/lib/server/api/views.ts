import type { View } from '../platform/runner/act';
import * as activity from '../trail/views';
import * as desk from '../places/views-desk';
import * as documents from '../documents/views';
import * as finding from '../find/views';
import * as places from '../places/views';
import * as addressBook from '../people/views-address-book';
import * as project from '../people/views';
import * as issued from '../register/views-issued';
import * as register from '../register/views';
import * as registerFigures from '../register/views-figures';
import * as registerKept from '../register/views-kept';
import * as references from '../references/views';
import * as releases from '../releases/views';
import * as holders from '../releases/views-holders';
import * as releasePass from '../releases/views-pass';
import * as releaseAnswers from '../releases/views-answers';
import * as recipients from '../releases/views-recipients';
import * as received from '../releases/views-received';
import * as standIns from '../releases/views-stand-ins';
import * as remarks from '../remarks/views';
import * as access from '../access/views';
import * as effects from '../access/views-effects';
import * as sharing from '../access/views-sharing';
import * as live from '../live/views';
import * as marks from '../marks/views';
import * as notices from '../notices/views';
import * as answering from '../passes/views-answering';
import * as passes from '../passes/views';
import * as settings from '../settings/views';
import * as today from '../today/views';
import * as tree from '../places/views-tree';

function isView(value: unknown): value is View {
	return typeof value === 'object' && value !== null && 'at' in value && 'run' in value;
}

/** Every view of Cupboard. A module's views join by being exported from it. */
export const VIEWS: readonly View[] = [
	tree,
	places,
	desk,
	documents,
	live,
	remarks,
	marks,
	finding,
	access,
	effects,
	sharing,
	activity,
	project,
	settings,
	addressBook,
	issued,
	register,
	registerFigures,
	registerKept,
	references,
	releases,
	releasePass,
	releaseAnswers,
	recipients,
	received,
	standIns,
	holders,
	answering,
	passes,
	notices,
	today
].flatMap((module) => Object.values(module as Record<string, unknown>).filter(isView));
