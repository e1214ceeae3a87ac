import { z } from 'zod';
import { RELEASE_RULES } from '../core/releases/may';
import { act } from './act';
import { id } from './fields';
import { packedFile } from './shapes/releases';

export const takeReleasePackage = act({
	name: 'takeReleasePackage',
	summary:
		'Note that an issued release is taken as a package that proves itself, and say what the package holds',
	method: 'POST',
	path: '/releases/{release}/package',
	input: z.strictObject({ release: id }),
	output: z.strictObject({ name: z.string(), files: z.array(packedFile) }),
	at: {
		kind: 'release',
		id: (i) => i.release,
		who: 'controller',
		applies: RELEASE_RULES.takeReleasePackage
	},
	events: ['release.packaged']
});
