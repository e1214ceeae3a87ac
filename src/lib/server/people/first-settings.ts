import { USUAL_TITLE_BLOCK } from '../../core/documents/title-block';
import { DEFAULT_STAMPS } from '../../core/markup/stamps';
import { standardRule } from '../../core/numbering/numbering';
import { DEFAULT_SCHEME } from '../../core/revisions/revisions';
import type { ProjectSettings } from '../platform/db/schema';

/**
 * What a project begins with.
 * @param code of the project, with which its numbers begin
 * @param domain of the mail of who makes it: their own organisation's
 */
export function firstSettings(code: string, domain: string): ProjectSettings {
	return {
		numbering: standardRule(code, []),
		revisions: DEFAULT_SCHEME,
		lockLimitDays: 5,
		retentionDays: 60,
		maxFileBytes: 20 * 1024 ** 3,
		outsideLevel: 'download',
		manageNeedsTwoStep: false,
		keepPosition: true,
		stamps: [...DEFAULT_STAMPS],
		ownDomains: [domain],
		releasePurposes: ['construction', 'as-built'],
		titleBlock: USUAL_TITLE_BLOCK
	};
}
